-- Where a link leads, so that hosts are found without opening what each link says.
alter table tree_item add column host text;
update tree_item t
set host = coalesce(lower(substring(b.form from '"address":"[A-Za-z]+://([^/"?#:]+)')), 'none')
from body b
where t.kind in ('TOOL_LINK', 'WEB_LINK') and b.fingerprint = substring(t.aspects from 161 for 32);
-- Questions as they were sent to platforms, whose addresses stand in them, and as they are kept.
create table sent_questions (
  sent bytea primary key references file (sha256),
  kept bytea not null references file (sha256)
);
-- Which parts a delivery brings, and how they arrive.
alter table delivery add column parts jsonb not null default '{"what": "EVERYTHING"}';
alter table delivery add column arrival text not null default 'AS_IN_MASTER'
  check (arrival in ('AS_IN_MASTER', 'HIDDEN', 'SHOWN'));
alter table delivery add column dates text not null default 'ALONG'
  check (dates in ('ALONG', 'LEFT', 'AWAY'));
alter domain step_reason drop constraint step_reason_check;
alter domain step_reason add constraint step_reason_check check (value in
  ('EQUAL', 'NEW_IN_VERSION', 'VERSION_MOVED', 'CHANGED_HERE', 'BOTH_MOVED', 'FIXED_PUT_BACK',
   'STARTER_BELONGS_TO_SECTION', 'ALIKE_ADOPTED', 'ALIKE_LEFT', 'ALIKE_ADDED_BESIDE', 'REMOVED_HERE',
   'GONE_FROM_VERSION', 'GONE_BUT_CHANGED_HERE', 'GONE_BUT_HOLDS_OTHERS', 'ALREADY_GONE', 'STUDENT_WORK',
   'DATES_LEFT', 'EMPTIED'));
alter table delivery add column emptied text not null default 'ASK' check (emptied in ('ASK', 'ANEW', 'LEAVE'));
-- What people decided of single clashes and twins: of an item in all sections, or where the same
-- clashes with the same.
create table delivery_decision (
  delivery_id uuid not null references delivery on delete cascade,
  item_key text not null,
  alike bytea check (octet_length(alike) = 32),
  take text not null check (take in ('SECTION', 'VERSION', 'TOGETHER', 'ADOPT', 'ADD', 'LEAVE')),
  together bytea references body (fingerprint),
  decided_by uuid not null references person,
  decided_at timestamptz not null,
  unique nulls not distinct (delivery_id, item_key, alike),
  check ((together is null) = (take <> 'TOGETHER'))
);
-- Choices of deliveries of a master, kept for the next time.
create table recipe (
  id uuid primary key,
  master_id uuid not null references master on delete cascade,
  name text not null check (name <> ''),
  choices jsonb not null,
  made_by uuid not null references person,
  made_at timestamptz not null,
  unique (master_id, name)
);
alter table delivery add column recipe_id uuid references recipe on delete set null;
-- Whether the shell was found emptied before the line began; while it is carried out, items go and come.
alter table delivery_line add column emptied boolean not null default false;
