-- External tools: what each asks for, where links to them stand, and what is known of each host in each section.
create table tool_connection (
  id uuid primary key,
  name text not null unique check (name <> ''),
  way text not null check (way in ('KEY_AND_SECRET', 'REGISTRATION', 'OPEN')),
  level text not null check (level in ('COLLEGE', 'CAMPUS', 'COURSE', 'SECTION')),
  scope_of text not null default '' check ((level = 'COLLEGE') = (scope_of = '')),
  stages text[] not null,
  pairing text not null check (pairing in ('BY_RULE', 'BY_ANSWER', 'BY_CREDENTIALS')),
  words text not null default '',
  wait_minutes int not null default 0 check (wait_minutes between 0 and 1440),
  sends_name boolean not null,
  sends_mail boolean not null,
  grades boolean not null,
  date_mode text not null check (date_mode in ('SENT_ONCE', 'SHELL_LEADS', 'TOOL_LEADS')),
  owner text not null default '',
  consumer_key text not null default '',
  secret bytea,
  -- counts every change of key or secret, so that a shell that has the one before is known
  generation int not null default 0,
  expires_on date,
  approved_at timestamptz,
  approved_by uuid references person,
  made_at timestamptz not null
);
create table tool_host (
  connection_id uuid not null references tool_connection on delete cascade,
  host text not null check (host = lower(host) and host <> ''),
  primary key (connection_id, host)
);
create index on tool_host (host);
create table tool_term (
  connection_id uuid not null references tool_connection on delete cascade,
  term_id uuid not null references term,
  primary key (connection_id, term_id)
);

-- Links of versions that lead to a host; a version never changes, so they are found once.
create table version_link (
  version_id uuid not null references version on delete cascade,
  item_key text not null,
  n int not null,
  tool boolean not null,
  host text not null,
  address text not null,
  parameters jsonb not null default '{}',
  primary key (version_id, item_key, n)
);
create index on version_link (host);
create table version_looked (version_id uuid primary key references version on delete cascade);

-- What is known of a host in a section.
create table section_tool (
  section_id uuid not null references section on delete cascade,
  host text not null,
  support boolean not null,
  links int not null default 0,
  data text not null check (data in ('NONE', 'PLACEHOLDER', 'REFUSED', 'THERE')),
  opened_at timestamptz,
  agreed_at timestamptz,
  course text not null default '',
  said text not null default '',
  done text[] not null default '{}',
  refused text not null default '',
  tested text not null default 'NOTHING_WRONG' check (tested in ('NOTHING_WRONG', 'STUDENTS_SHUT_OUT', 'NO_ANSWER')),
  tested_at timestamptz,
  written_at timestamptz,
  connection_id uuid references tool_connection on delete set null,
  generation int not null default 0,
  looked_at timestamptz not null,
  primary key (section_id, host)
);
create index on section_tool (host);
create table tool_look (
  section_id uuid primary key references section on delete cascade,
  wanted boolean not null,
  looked_at timestamptz,
  trouble text not null default ''
);

-- Credentials that are still to be written into a shell.
create table tool_write (
  section_id uuid not null references section on delete cascade,
  host text not null,
  connection_id uuid not null references tool_connection on delete cascade,
  person_id uuid not null references person,
  asked_at timestamptz not null,
  tries int not null default 0,
  trouble text not null default '',
  remedy text not null default '',
  primary key (section_id, host)
);

create table launch_test (
  id bigint generated always as identity primary key,
  connection_id uuid references tool_connection on delete cascade,
  section_id uuid references section on delete cascade,
  host text not null,
  role text not null check (role in ('INSTRUCTOR', 'LEARNER')),
  outcome text not null check (outcome in ('OPENED', 'REFUSED', 'NO_ANSWER')),
  said text not null,
  millis int not null,
  person_id uuid references person,
  round uuid,
  at timestamptz not null
);
create index on launch_test (round);
create index on launch_test (section_id, host, id);
create index on launch_test (host, at);

-- Launches that are still to be tested; who asked, or nobody if their time had come.
create table test_wanted (
  section_id uuid not null references section on delete cascade,
  host text not null,
  person_id uuid references person,
  round uuid not null,
  primary key (section_id, host)
);
create index on test_wanted (round);
-- When all that works was last tested by itself.
create table test_round (one boolean primary key default true check (one), began_at timestamptz);
insert into test_round values (true, null);

-- That somebody asked for a host to be approved, and what was decided.
create table tool_request (
  id uuid primary key,
  host text not null,
  reason text not null,
  asked_by uuid not null references person,
  asked_at timestamptz not null,
  decided text check (decided in ('APPROVED', 'DECLINED')),
  decided_by uuid references person,
  decided_at timestamptz,
  conditions text not null default '',
  reminded_at timestamptz,
  check ((decided is null) = (decided_at is null))
);
create unique index on tool_request (host) where decided is null;

-- When the ledger last learnt of a section, for those who look at it again after that.
create view section_learnt as select section_id, read_at as at from standing;

-- Mail that is about no delivery says what it is about instead.
alter table mail alter column delivery_id drop not null;
alter table mail add column about text not null default '';
alter table mail drop constraint mail_delivery_id_section_id_person_id_done_key;
alter table mail add constraint mail_once unique nulls not distinct (delivery_id, section_id, person_id, done, about);
alter table mail add check ((delivery_id is null) = (about <> ''));

-- How links are written that were meant for another address; what is empty is not limited.
create table relink_rule (
  id uuid primary key,
  place int not null unique,
  from_pattern text not null,
  to_template text not null,
  parameters jsonb not null default '{}',
  masters uuid[] not null default '{}',
  terms uuid[] not null default '{}',
  campuses text[] not null default '{}',
  from_day date,
  until_day date,
  made_by uuid not null references person,
  made_at timestamptz not null
);
