-- What a shell has for its external tools: whether they may be used at all, and the data of each host.
alter table shell add column tools boolean not null default true;
create table tool_data (
  shell_id text not null references shell on delete cascade,
  host text not null,
  key text not null default '',
  secret text not null default '',
  by text not null check (by in ('PACKAGE', 'PERSON', 'PROGRAM')),
  course text not null default '',
  primary key (shell_id, host)
);
create table tool_opening (
  id bigint generated always as identity primary key,
  shell_id text not null references shell on delete cascade,
  host text not null,
  role text not null check (role in ('INSTRUCTOR', 'LEARNER')),
  person text not null,
  at timestamptz not null,
  said text not null default ''
);
create index on tool_opening (shell_id, host);

-- The practice tools' own data.
create table tool_key (
  host text not null,
  key text not null,
  secret text not null,
  course text not null default '',
  primary key (host, key)
);
create table tool_nonce (
  host text not null,
  key text not null,
  nonce text not null,
  at timestamptz not null,
  primary key (host, key, nonce)
);
create table tool_course (
  id text primary key,
  host text not null,
  title text not null,
  term text not null,
  made_at timestamptz not null
);
create table tool_tie (
  host text not null,
  context text not null,
  course_id text references tool_course,
  agreed_at timestamptz,
  ready_at timestamptz,
  primary key (host, context)
);
create table tool_ticket (
  id text primary key,
  host text not null,
  context text not null,
  title text not null,
  back text not null,
  at timestamptz not null
);
create table tool_knobs (
  host text primary key,
  down boolean not null default false,
  slow_seconds int not null default 0 check (slow_seconds between 0 and 120),
  wait_minutes int not null default 0 check (wait_minutes between 0 and 600),
  clock_off_seconds int not null default 0,
  moved_to text not null default ''
);
