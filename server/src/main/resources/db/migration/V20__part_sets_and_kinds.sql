-- Parts by their kinds and titles under a name, serving every master.
create table part_set (
  id uuid primary key,
  name text not null unique,
  kinds text[] not null,
  titles text[] not null,
  made_by uuid not null references person,
  made_at timestamptz not null,
  check (cardinality(kinds) + cardinality(titles) > 0)
);
-- What is chosen for some kinds of items otherwise than for the rest.
alter table delivery add column by_kind jsonb not null default '{"clash":{},"twin":{}}';
