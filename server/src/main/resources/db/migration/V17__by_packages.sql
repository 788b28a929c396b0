-- Platforms without an interface: their shells are written by packages, and known by what was exported.
alter table platform alter column address drop not null;
alter table platform alter column token drop not null;
alter table platform add constraint platform_has_an_address_and_a_token_or_neither check ((address is null) = (token is null));
-- What the sheet with each package says, in the college's words.
alter table platform add column sheet jsonb not null default '{}';
create table platform_campus (
  campus_id uuid primary key references campus on delete cascade,
  platform_id uuid not null references platform on delete cascade
);
create index on platform_campus (platform_id);
create table kept_shell (
  section_id uuid primary key references section on delete cascade,
  state text not null,
  known text not null check (known in ('NOTHING', 'SAID', 'EXPORTED')),
  known_at timestamptz not null,
  package_at timestamptz
);
-- What a shell holds, and as it will be once its package is brought in; forms are those of the shell.
create table kept_item (
  section_id uuid not null references kept_shell on delete cascade,
  meant boolean not null,
  item text not null,
  kind item_kind not null,
  parent text,
  aspects bytea not null check (octet_length(aspects) = 192),
  revision text not null,
  primary key (section_id, meant, item)
);
-- Items that are to go into a named place of a shell that has none of that name.
alter domain step_reason drop constraint step_reason_check;
alter domain step_reason add constraint step_reason_check check (value in
  ('EQUAL', 'NEW_IN_VERSION', 'VERSION_MOVED', 'CHANGED_HERE', 'BOTH_MOVED', 'FIXED_PUT_BACK',
   'STARTER_BELONGS_TO_SECTION', 'ALIKE_ADOPTED', 'ALIKE_LEFT', 'ALIKE_ADDED_BESIDE', 'REMOVED_HERE',
   'GONE_FROM_VERSION', 'GONE_BUT_CHANGED_HERE', 'GONE_BUT_HOLDS_OTHERS', 'ALREADY_GONE', 'STUDENT_WORK',
   'DATES_LEFT', 'EMPTIED', 'TAKEN_BACK', 'CLEARED', 'NOT_CLEARED', 'ALIKE_EARLIER_TERM', 'ALIKE_DOUBTFUL', 'PUT_BACK', 'ACCEPTED_HERE',
   'SUPPLIED', 'MEETS', 'NO_PLACE'));
-- All of a line is written, its links too.
alter table delivery_line add column all_written boolean not null default false;
alter table delivery_line drop constraint delivery_line_waits_for_check;
alter table delivery_line add constraint delivery_line_waits_for_check check (waits_for in ('SHELL', 'EMPTY', 'TIME', 'BEFORE', 'PACKAGE'));
