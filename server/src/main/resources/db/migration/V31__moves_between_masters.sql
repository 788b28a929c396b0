-- What was cut in one master and put into another is one step in two drafts: each names the other.
alter table draft_step add column with_step bigint references draft_step on delete set null;
create index on draft_step (with_step) where with_step is not null;
