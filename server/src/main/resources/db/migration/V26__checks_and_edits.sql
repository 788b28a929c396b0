-- A change that is made alike in all sections of a delivery, instead of what its version says.
alter table delivery add column edit jsonb;
alter domain step_reason drop constraint step_reason_check;
alter domain step_reason add constraint step_reason_check check (value in
  ('EQUAL', 'NEW_IN_VERSION', 'VERSION_MOVED', 'CHANGED_HERE', 'BOTH_MOVED', 'FIXED_PUT_BACK',
   'STARTER_BELONGS_TO_SECTION', 'ALIKE_ADOPTED', 'ALIKE_LEFT', 'ALIKE_ADDED_BESIDE', 'REMOVED_HERE',
   'GONE_FROM_VERSION', 'GONE_BUT_CHANGED_HERE', 'GONE_BUT_HOLDS_OTHERS', 'ALREADY_GONE', 'STUDENT_WORK',
   'DATES_LEFT', 'EMPTIED', 'TAKEN_BACK', 'CLEARED', 'NOT_CLEARED', 'ALIKE_EARLIER_TERM', 'ALIKE_DOUBTFUL', 'PUT_BACK', 'ACCEPTED_HERE',
   'SUPPLIED', 'MEETS', 'NO_PLACE', 'NO_WEEK', 'WEEKS_ADDED', 'EDITED'));

-- What each shell held when it was read last; the texts are kept with all others.
create table shell_reading (
  section_id uuid primary key references section on delete cascade,
  read_at timestamptz not null,
  items int not null,
  reading bytea not null,
  open_known boolean not null,
  opens date,
  closes date
);
alter table shell_reading alter column reading set storage external;

-- Where checks do not hold, as of the last look.
create table finding (
  section_id uuid not null references section on delete cascade,
  check_name text not null,
  subject text not null,
  item text not null, -- the platform's id; empty: about none that is there
  title text not null,
  evidence text not null,
  since timestamptz not null,
  primary key (section_id, check_name, subject, item)
);
create index on finding (check_name, subject);
create table section_checked (
  section_id uuid primary key references section on delete cascade,
  at timestamptz not null
);
-- How many there were at the end of each day, by weight.
create table checked_day (
  section_id uuid not null references section on delete cascade,
  day date not null,
  harm int not null,
  wrong int not null,
  can_wait int not null,
  primary key (section_id, day)
);
-- What is right as it is in a section, as long as the evidence is the same.
create table right_here (
  section_id uuid not null references section on delete cascade,
  check_name text not null,
  subject text not null,
  evidence text not null,
  reason text not null check (reason <> ''),
  person_id uuid not null references person,
  at timestamptz not null,
  primary key (section_id, check_name, subject)
);
-- What the instructors of a section are asked to put right; it ends when it is not found any more.
create table finding_asked (
  section_id uuid not null references section on delete cascade,
  check_name text not null,
  subject text not null,
  note text not null,
  person_id uuid not null references person,
  at timestamptz not null,
  primary key (section_id, check_name, subject)
);
-- What the college has otherwise than it comes: checks that are not looked at, and how bad they are.
create table check_choice (
  check_name text primary key,
  looked boolean not null,
  weight text not null
);
-- When students are to be let into shells, until it is written there.
create table shell_opening (
  section_id uuid primary key references section on delete cascade,
  opens date,
  closes date check (closes >= opens),
  person_id uuid not null references person,
  asked_at timestamptz not null,
  written_at timestamptz,
  problem text
);
alter table hand_over drop constraint hand_over_kind_check;
alter table hand_over add constraint hand_over_kind_check check (kind in
  ('CREATE_SHELL', 'CLEAR_SHELL', 'SWITCH_SUPPORT_ON', 'ENTER_CREDENTIALS', 'APPROVE', 'OPEN_ONCE', 'PUT_RIGHT', 'OPEN_SHELL'));
alter table hand_over_steps drop constraint hand_over_steps_kind_check;
alter table hand_over_steps add constraint hand_over_steps_kind_check check (kind in
  ('CREATE_SHELL', 'CLEAR_SHELL', 'SWITCH_SUPPORT_ON', 'ENTER_CREDENTIALS', 'APPROVE', 'OPEN_ONCE', 'PUT_RIGHT', 'OPEN_SHELL'));
-- Addresses at which calendar programs find what is due, each with a secret that is kept as a hash.
create table calendar_address (
  id uuid primary key,
  person_id uuid not null references person on delete cascade,
  hash bytea not null unique check (octet_length(hash) = 32),
  term_id uuid not null references term on delete cascade,
  course text,
  section_id uuid references section on delete cascade,
  made_at timestamptz not null,
  used_at timestamptz
);
create index on calendar_address (person_id);
-- From one term to the next: what people have said of the proposal.
create table next_term (
  id uuid primary key,
  from_term uuid not null references term on delete cascade,
  to_term uuid not null references term on delete cascade check (to_term <> from_term),
  unique (from_term, to_term)
);
create table next_pair (
  next_id uuid not null references next_term on delete cascade,
  section_id uuid not null references section on delete cascade,
  successor_id uuid references section on delete cascade, -- none: nothing follows it
  primary key (next_id, section_id),
  unique (next_id, successor_id)
);
create table next_master (
  next_id uuid not null references next_term on delete cascade,
  master_id uuid not null references master on delete cascade,
  pinned int check (pinned > 0), -- none: the newest
  left_out boolean not null,
  primary key (next_id, master_id)
);
create table next_text (
  next_id uuid not null references next_term on delete cascade,
  master_id uuid not null references master on delete cascade,
  item_key text not null,
  carried boolean not null,
  primary key (next_id, master_id, item_key)
);
-- Which section a section follows, once it was brought forward.
create table section_follows (
  section_id uuid primary key references section on delete cascade,
  follows_id uuid not null references section on delete cascade check (follows_id <> section_id)
);
