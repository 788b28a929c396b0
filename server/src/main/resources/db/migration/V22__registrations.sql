-- A registration (LTI 1.3); its client is the key of the connection, its deployment a pattern as the key is.
alter table tool_connection
  add column deployment text not null default '',
  add column login text not null default '',
  add column launches text[] not null default '{}',
  add column key_set text not null default '';
-- The key that this application signs messages with, one for all its servers.
create table signing_key (one boolean primary key default true check (one), secret bytea not null);

-- Resources that somebody picks in a tool for a draft; what the tool answered waits until they take it.
create table picking (
  id uuid primary key,
  connection_id uuid not null references tool_connection on delete cascade,
  master_id uuid not null references master on delete cascade,
  parent text,
  person_id uuid not null references person on delete cascade,
  deployment text not null,
  began_at timestamptz not null,
  asked_at timestamptz,
  answered_at timestamptz,
  picked jsonb,
  trouble text not null default '',
  taken_at timestamptz
);
create index on picking (began_at);

-- Courses on a tool's side: one that launches name, as a pattern of the section's values, and those of the tool's masters.
alter table tool_connection
  drop constraint tool_connection_pairing_check,
  add check (pairing in ('BY_RULE', 'BY_ANSWER', 'BY_CREDENTIALS', 'BY_PARAMETER')),
  add column course_pattern text not null default '',
  add column masters_courses text[] not null default '{}';
-- The course that is written with the credentials; null: as it is.
alter table tool_write add column course text;
-- What was opened or answered before does not count any more.
alter table section_tool add column untied_at timestamptz;
-- A wish to look that came while a look was under way stays.
alter table tool_look add column wanted_at timestamptz;
-- The last score that came back, of how many points it was, and how many its task has in the shell.
alter table section_tool add column scored_at timestamptz, add column out_of numeric, add column points numeric;
-- How many days before the end of its credentials people were last told of it.
alter table tool_connection add column told_days int;
