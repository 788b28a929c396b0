-- Counts every change in a shell, so that a reader can ask whether anything has moved.
create sequence shell_state;
alter table shell add column state bigint not null default 0;
