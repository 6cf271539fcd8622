-- What a list of models shows and asks by, as figures instead of words; empty for models taken in before. Heights in metres above the
-- geoid, corners in degrees.
alter table model add column extent varchar(1000) default '' not null;
