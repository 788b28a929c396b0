-- Words that mean one thing wherever they are kept. A new one is added in one place.
create domain item_kind as text check (value in
  ('MODULE', 'PAGE', 'FILE', 'WEB_LINK', 'TOOL_LINK', 'ASSIGNMENT', 'DISCUSSION', 'QUIZ', 'QUESTION_BANK',
   'RUBRIC', 'OUTCOME', 'GRADE_CATEGORY', 'ANNOUNCEMENT', 'GROUP_SET'));
create domain step_kind as text check (value in
  ('ADD', 'UPDATE', 'KEEP', 'CLASH', 'TWIN', 'RETIRE', 'SAME', 'BLOCKED'));
create domain step_reason as text check (value in
  ('EQUAL', 'NEW_IN_VERSION', 'VERSION_MOVED', 'CHANGED_HERE', 'BOTH_MOVED', 'FIXED_PUT_BACK',
   'STARTER_BELONGS_TO_SECTION', 'ALIKE_ADOPTED', 'ALIKE_LEFT', 'ALIKE_ADDED_BESIDE', 'REMOVED_HERE',
   'GONE_FROM_VERSION', 'GONE_BUT_CHANGED_HERE', 'GONE_BUT_HOLDS_OTHERS', 'ALREADY_GONE', 'STUDENT_WORK'));
alter table tree_item alter column kind type item_kind;
alter table receipt alter column item_kind type item_kind;
alter table holding alter column item_kind type item_kind;
alter table delivery_step alter column item_kind type item_kind;
alter table delivery_step alter column kind type step_kind;
alter table delivery_step alter column reason type step_reason;
alter table delivery add check (clash in ('KEEP_SECTION', 'TAKE_VERSION'));
alter table delivery add check (twin in ('ADOPT', 'ADD', 'LEAVE'));

-- The sections an item is meant for; without a word, all.
alter table tree_item add column applies_to jsonb not null default '{}';

-- What an item becomes by a step, aspect by aspect: of what is written, the version's side until now.
alter table delivery_step add column becomes bytea check (octet_length(becomes) = 192);
update delivery_step set becomes = coalesce(here, meant) where kind <> 'RETIRE';
do $$
begin
  for a in 0..5 loop
    update delivery_step
    set becomes = overlay(becomes placing substring(meant from a * 32 + 1 for 32) from a * 32 + 1 for 32)
    where writes & (1 << a) <> 0 and becomes is not null and meant is not null;
  end loop;
end $$;

-- A local time is one text, however it was written: 18:00, not 18:00:00.
create temporary table retimed on commit drop as
select fingerprint as old, regexp_replace(form, '(T\d\d:\d\d):00(?=")', '\1', 'g') as form from body
where form ~ '^\{("(closes|due|opens)":"\d{4}-\d\d-\d\dT[0-9:]+",?)+\}$'
  and form ~ 'T\d\d:\d\d:00"';
alter table retimed add column new bytea;
update retimed set new = sha256(convert_to(form, 'UTF8'));
insert into body (fingerprint, form) select new, form from retimed on conflict do nothing;
alter table receipt disable trigger receipt_only_added;
do $$
declare
  packed record;
begin
  for packed in
    select * from (values ('tree_item', 'aspects'), ('receipt', 'sent'), ('receipt', 'shown'),
      ('holding', 'sent'), ('holding', 'shown'), ('holding', 'here'), ('delivery_step', 'base'),
      ('delivery_step', 'here'), ('delivery_step', 'meant'), ('delivery_step', 'becomes')) x (tab, col)
  loop
    execute format(
      'update %1$I t set %2$I = overlay(t.%2$I placing r.new from 65 for 32) from retimed r'
      ' where substring(t.%2$I from 65 for 32) = r.old', packed.tab, packed.col);
  end loop;
end $$;
alter table receipt enable trigger receipt_only_added;

-- Intakes wait on the same queue as everything else; the package is kept until it is read.
update intake set state = 'REFUSED', problem = 'The server was renewed while it read the package; nothing was kept.',
  remedy = 'Take the file in again.' where state = 'READING';
alter table intake drop column alive_at;
alter table intake add column tries int not null default 0;
alter table intake add column sha256 bytea check (octet_length(sha256) = 32);
create unlogged table intake_part (
  intake_id uuid not null references intake on delete cascade,
  n int not null check (n >= 0),
  data bytea not null,
  primary key (intake_id, n)
);
alter table intake_part alter column data set storage external;
