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
