-- Requests name places by what they are called, in whatever case.
create index place_name on place (lower(name));
