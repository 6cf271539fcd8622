-- The round of writing in which what is here was forced to the disk; see Durability.
create table kept (round bigint not null);
insert into kept (round) values (0);
