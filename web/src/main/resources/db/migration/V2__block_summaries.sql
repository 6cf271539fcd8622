-- The hash of a step's facts, by which what follows from them is kept.
alter table block_step add column hash varchar(64) default '' not null;
update block_step set hash = lower(rawtohex(hash('SHA256', facts)));

-- What a list of blocks shows, by the facts it follows from; SI. Kept anew when the program reckons differently.
create table block_summary (
    hash varchar(64) not null,
    figures int not null,
    area_m2 double precision,
    gsd_m double precision,
    photos int,
    flight_time_s double precision,
    outline character large object not null,
    primary key (hash, figures)
);
