-- What days off do to dates of a version is frozen with it; master_off is of the draft.
alter table version
  add column off_rule text not null default 'NEXT_TEACHING_DAY',
  add column off_by_kind jsonb not null default '{}';
update version v set off_rule = o.rule, off_by_kind = o.by_kind from master_off o where o.master_id = v.master_id;
