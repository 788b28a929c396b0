-- A bundle that was looked at and waits to be taken in; cleared after a day.
create table roster_bundle (
  id uuid primary key,
  person_id uuid not null references person on delete cascade,
  at timestamptz not null,
  plan text not null
);
create table roster_bundle_chunk (
  id uuid not null references roster_bundle on delete cascade,
  n int not null check (n >= 0),
  data bytea not null,
  primary key (id, n)
);
-- The teacher of record, and how many are enrolled.
alter table section_instructor add column is_primary boolean not null default false;
alter table section add column enrolled int;
