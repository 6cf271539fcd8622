-- The order in which the blocks of a job are flown, and whether a block is left out of its sheet and totals.
alter table block add column place bigint default 0 not null;
alter table block add column hidden boolean default false not null;
update block set place = id;
