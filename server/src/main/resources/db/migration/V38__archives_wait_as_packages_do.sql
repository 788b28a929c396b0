-- An archive of a source waits and is read as a package is.
alter table intake add column archive boolean not null default false;
alter table intake add column code text not null default '';
alter table intake add column program_id uuid references program on delete set null;
alter table intake add column master_id uuid references master on delete set null;
