-- What the platform called the state of the shell that a line was planned on.
alter table delivery_line add column read_tag text;
