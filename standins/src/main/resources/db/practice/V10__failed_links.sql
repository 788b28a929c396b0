-- A platform may call links failed whose tool is not connected yet.
alter table fault drop constraint fault_kind_check, add check (kind in
  ('SLOW', 'REFUSE', 'TOKEN', 'LIMIT', 'ERROR', 'CUT', 'DOWN', 'LOSE', 'PART', 'MEDDLE', 'UNCONNECTED'));
