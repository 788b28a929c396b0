-- The practice platform's own data.
create table shell (
  id text primary key,
  title text not null,
  course text not null,
  term text not null,
  students int not null default 0
);
create table file (
  sha256 text primary key check (sha256 ~ '^[0-9a-f]{64}$'),
  media_type text not null,
  size bigint not null
);
create table file_chunk (
  sha256 text not null references file on delete cascade,
  n int not null,
  data bytea not null,
  primary key (sha256, n)
);
create table item (
  id text primary key,
  shell_id text not null references shell on delete cascade,
  kind text not null,
  parent_id text references item on delete cascade,
  rank text not null,
  title text not null,
  html text not null default '',
  wording jsonb not null default '{}',
  grading jsonb not null default '{}',
  timing jsonb not null default '{}',
  launch jsonb not null default '{}',
  shown boolean not null default true,
  instructors_only boolean not null default false,
  changed_by text not null,
  changed_at timestamptz not null
);
create index on item (shell_id);
create index on item (parent_id);
create table submission (
  id bigint generated always as identity primary key,
  item_id text not null references item on delete cascade,
  student text not null,
  text text not null,
  at timestamptz not null
);
create index on submission (item_id);
-- The answer to a step, kept so that the same step sent twice is done once.
create table answer (
  key text primary key,
  shell_id text not null references shell on delete cascade,
  item_id text not null
);
-- How often a call on a shell is still to be answered with an error.
create table fault (
  shell_id text primary key references shell on delete cascade,
  status int not null,
  times int not null
);
