-- A platform may call links failed whose tool is not connected yet.
alter table fault drop constraint fault_kind_check, add check (kind in
  ('SLOW', 'REFUSE', 'TOKEN', 'LIMIT', 'ERROR', 'CUT', 'DOWN', 'LOSE', 'PART', 'MEDDLE', 'UNCONNECTED'));
-- What a tool says of its task: points and a date, beside the shell's own.
create table tool_task (
  item_id text primary key references item on delete cascade,
  shell_id text not null references shell on delete cascade,
  host text not null,
  maximum numeric not null,
  due timestamp
);
-- A date of the tool's own; empty: it follows what the shell says.
alter table tool_knobs add column due text not null default '';
