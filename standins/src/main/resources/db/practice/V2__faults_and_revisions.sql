-- Every change of an item counts, so that a writer can say which state it has seen.
alter table item add column revision bigint not null default 1;
alter table answer add column revision bigint not null default 1;
-- What is to go wrong: on one shell or on every call, so many times or until it is taken away.
drop table fault;
create table fault (
  id bigint generated always as identity primary key,
  shell_id text references shell on delete cascade,
  kind text not null check (kind in
    ('SLOW', 'REFUSE', 'TOKEN', 'LIMIT', 'ERROR', 'CUT', 'DOWN', 'LOSE', 'PART', 'MEDDLE')),
  times int check (times >= 0),
  chance double precision not null default 1 check (chance > 0 and chance <= 1),
  status int not null default 500,
  seconds double precision not null default 5
);
create index on fault (shell_id);
