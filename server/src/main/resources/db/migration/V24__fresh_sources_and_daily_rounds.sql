-- Sources that are taken anew each term, never from a shell of the term before.
alter table master add column fresh_each_term boolean not null default false;
alter table cartridge add column fresh_each_term boolean not null default false;
-- Rounds that go once a day, whichever server begins them.
create table daily_round (
  name text primary key,
  went_on date
);
insert into daily_round values ('remind-hand-overs', null);
-- Two rules change places in one statement.
alter table relink_rule drop constraint relink_rule_place_key, add unique (place) deferrable initially immediate;
