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
-- Tasks that are done in tools, as shells and tools have them; times are the shell's own.
create table tool_task (
  section_id uuid not null references section on delete cascade,
  platform_item text not null,
  host text not null,
  title text not null,
  points numeric,
  out_of numeric,
  due timestamp,
  tool_due timestamp,
  primary key (section_id, platform_item)
);
create index on tool_task (host);
