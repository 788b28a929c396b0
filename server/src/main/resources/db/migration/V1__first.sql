-- Content, by fingerprint. Kept once, never changed.
create table body (
  fingerprint bytea primary key check (octet_length(fingerprint) = 32),
  form text not null
);
create table file (
  sha256 bytea primary key check (octet_length(sha256) = 32),
  size bigint not null check (size >= 0),
  media_type text not null
);
create table file_chunk (
  sha256 bytea not null references file on delete cascade,
  n int not null check (n >= 0),
  data bytea not null check (octet_length(data) between 1 and 262144),
  primary key (sha256, n)
);
alter table file_chunk alter column data set storage external;

-- A tree of items: the content of an edition, a draft or a version.
create table tree (id uuid primary key);
create table tree_item (
  tree_id uuid not null references tree on delete cascade,
  item_key text not null check (item_key ~ '^[A-Za-z0-9._-]{1,80}$'),
  kind text not null,
  title text not null check (title <> ''),
  parent_key text,
  rank text not null,
  edit_rule text not null check (edit_rule in ('FIXED', 'ADAPTABLE', 'STARTER')),
  shown boolean not null,
  instructors_only boolean not null,
  aspects bytea not null check (octet_length(aspects) = 192),
  primary key (tree_id, item_key),
  foreign key (tree_id, parent_key) references tree_item (tree_id, item_key) deferrable initially deferred,
  check (parent_key <> item_key)
);
create index on tree_item (tree_id, parent_key);

-- The college.
create table campus (id uuid primary key, sourced_id text not null unique, name text not null);
create table program (id uuid primary key, sourced_id text not null unique, name text not null);
create table term (
  id uuid primary key,
  sourced_id text not null unique,
  title text not null,
  first_day date not null,
  last_day date not null check (last_day >= first_day)
);
create table course (
  id uuid primary key,
  sourced_id text not null unique,
  code text not null,
  title text not null,
  program_id uuid not null references program
);
create table person (
  id uuid primary key,
  sourced_id text unique,
  email text unique check (email = lower(email)),
  name text not null,
  role text not null check (role in ('COORDINATOR', 'DESIGNER', 'INSTRUCTOR', 'ADMINISTRATOR')),
  password_hash text
);
create table person_program (
  person_id uuid not null references person on delete cascade,
  program_id uuid not null references program on delete cascade,
  primary key (person_id, program_id)
);
create table platform (
  id uuid primary key,
  name text not null unique,
  address text not null,
  token bytea not null
);
create table section (
  id uuid primary key,
  sourced_id text not null unique,
  code text not null,
  title text not null,
  course_id uuid not null references course,
  campus_id uuid not null references campus,
  term_id uuid references term,
  in_roster boolean not null default true,
  platform_id uuid references platform,
  shell text,
  students int,
  busy_line uuid,
  unique (platform_id, shell),
  check ((platform_id is null) = (shell is null))
);
create index on section (course_id);
create index on section (term_id);
create table section_instructor (
  section_id uuid not null references section on delete cascade,
  person_id uuid not null references person on delete cascade,
  primary key (section_id, person_id)
);
create index on section_instructor (person_id);

-- Sources.
create table cartridge (
  id uuid primary key,
  title text not null,
  identifier text not null unique
);
create table edition (
  id uuid primary key,
  cartridge_id uuid not null references cartridge,
  number int not null check (number > 0),
  tree_id uuid not null references tree,
  file_name text not null,
  sha256 bytea not null unique,
  size bigint not null,
  report jsonb not null,
  taken_by uuid not null references person,
  taken_at timestamptz not null,
  unique (cartridge_id, number)
);
create table intake (
  id uuid primary key,
  file_name text not null,
  size bigint not null,
  person_id uuid not null references person,
  state text not null check (state in ('READING', 'DONE', 'REFUSED')),
  done int not null default 0,
  total int not null default 0,
  what text not null default '',
  edition_id uuid references edition,
  known_already boolean not null default false,
  problem text,
  place text,
  remedy text,
  started_at timestamptz not null,
  alive_at timestamptz not null
);
create table master (
  id uuid primary key,
  code text not null unique,
  title text not null,
  program_id uuid references program,
  draft_tree_id uuid not null references tree,
  edition_id uuid references edition,
  made_by uuid not null references person,
  made_at timestamptz not null
);
create table version (
  id uuid primary key,
  master_id uuid not null references master,
  number int not null check (number > 0),
  tree_id uuid not null references tree,
  note text not null,
  items int not null,
  frozen_by uuid not null references person,
  frozen_at timestamptz not null,
  unique (master_id, number)
);
-- Which sections are expected to hold a master: those of a course, or all.
create table coverage_rule (
  id uuid primary key,
  master_id uuid not null references master,
  course_id uuid references course,
  unique nulls not distinct (master_id, course_id)
);

-- Deliveries.
create table delivery (
  id uuid primary key,
  version_id uuid not null references version,
  state text not null check (state in ('PLANNING', 'PLANNED', 'RUNNING', 'STOPPED', 'DONE')),
  clash text not null,
  twin text not null,
  made_by uuid not null references person,
  made_at timestamptz not null,
  confirmed_by uuid references person,
  confirmed_at timestamptz,
  finished_at timestamptz,
  check ((confirmed_by is null) = (confirmed_at is null))
);
create table delivery_line (
  id uuid primary key,
  delivery_id uuid not null references delivery on delete cascade,
  section_id uuid not null references section,
  state text not null check (state in
    ('TO_PLAN', 'PLANNED', 'WAITING', 'RUNNING', 'TRYING_AGAIN', 'NEEDS_PERSON', 'STOPPED', 'DONE')),
  activity text not null default '',
  steps int not null default 0,
  steps_done int not null default 0,
  same int not null default 0,
  attempts int not null default 0,
  next_try timestamptz,
  reason text,
  remedy text,
  counts jsonb not null default '{}',
  read_at timestamptz,
  finished_at timestamptz,
  unique (delivery_id, section_id)
);
create index on delivery_line (id)
  where state in ('TO_PLAN', 'WAITING', 'RUNNING', 'TRYING_AGAIN');
create table delivery_step (
  line_id uuid not null references delivery_line on delete cascade,
  n int not null,
  item_key text not null,
  item_kind text not null,
  title text not null,
  kind text not null,
  reason text not null,
  moves boolean not null,
  writes int not null,
  aspect_steps jsonb not null,
  base bytea check (octet_length(base) = 192),
  here bytea check (octet_length(here) = 192),
  meant bytea check (octet_length(meant) = 192),
  platform_item text,
  sent boolean not null default false,
  done boolean not null default false,
  sent_key text,
  recorded boolean not null default false,
  primary key (line_id, n),
  unique (line_id, item_key)
);

-- The ledger. Receipts are only ever added; a holding is the last receipt of an item in a section.
create table receipt (
  id bigint generated always as identity primary key,
  section_id uuid not null references section,
  master_id uuid not null references master,
  version_id uuid not null references version,
  delivery_id uuid not null references delivery,
  item_key text not null,
  item_kind text not null,
  title text not null,
  how text not null check (how in ('ADDED', 'UPDATED', 'ADOPTED', 'KEPT', 'RETIRED')),
  writes int not null,
  platform_item text not null,
  sent bytea not null check (octet_length(sent) = 192),
  shown bytea not null check (octet_length(shown) = 192),
  person_id uuid not null references person,
  at timestamptz not null
);
create index on receipt (section_id, item_key, id);
create table holding (
  section_id uuid not null references section,
  master_id uuid not null references master,
  item_key text not null,
  item_kind text not null,
  title text not null,
  platform_item text not null,
  receipt_id bigint not null references receipt,
  sent bytea not null check (octet_length(sent) = 192),
  shown bytea not null check (octet_length(shown) = 192),
  here bytea check (octet_length(here) = 192),
  primary key (section_id, item_key)
);
create index on holding (section_id, master_id);
create table standing (
  section_id uuid not null references section,
  master_id uuid not null references master,
  version_id uuid not null references version,
  delivery_id uuid not null references delivery,
  expected int not null,
  held int not null,
  changed int not null,
  withheld int not null,
  read_at timestamptz not null,
  primary key (section_id, master_id)
);
create index on standing (master_id, version_id);

-- Who did what; only ever added to.
create table event (
  id bigint generated always as identity primary key,
  at timestamptz not null,
  person_id uuid references person,
  what text not null,
  subject text not null,
  detail text not null default ''
);
create function only_added() returns trigger language plpgsql as $$
begin
  raise exception '% is only ever added to', tg_table_name;
end $$;
create trigger event_only_added before update or delete on event for each row execute function only_added();
create trigger receipt_only_added before update or delete on receipt for each row execute function only_added();

-- Queue (db-scheduler).
create table scheduled_tasks (
  task_name text not null,
  task_instance text not null,
  task_data bytea,
  execution_time timestamptz not null,
  picked boolean not null,
  picked_by text,
  last_success timestamptz,
  last_failure timestamptz,
  consecutive_failures int,
  last_heartbeat timestamptz,
  version bigint not null,
  priority smallint,
  primary key (task_name, task_instance)
);
create index on scheduled_tasks (execution_time);
create index on scheduled_tasks (last_heartbeat);

-- Sessions of people who signed in (Spring Session).
create table spring_session (
  primary_id char(36) not null primary key,
  session_id char(36) not null unique,
  creation_time bigint not null,
  last_access_time bigint not null,
  max_inactive_interval int not null,
  expiry_time bigint not null,
  principal_name varchar(100)
);
create index on spring_session (expiry_time);
create index on spring_session (principal_name);
create table spring_session_attributes (
  session_primary_id char(36) not null references spring_session (primary_id) on delete cascade,
  attribute_name varchar(200) not null,
  attribute_bytes bytea not null,
  primary key (session_primary_id, attribute_name)
);
