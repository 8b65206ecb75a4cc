-- How the statements of a key version were read: answers cite the number, and what was answered by it keeps it. A new number is made only
-- where something is read otherwise.
create table key_reading (
    hash    text        not null,
    number  int         not null check (number >= 1),
    reader  text        not null,
    content jsonb       not null,
    read_at timestamptz not null,
    primary key (hash, number)
);
create trigger key_reading_is_a_fact before update or delete on key_reading for each row execute function refuse_change();

-- What was kept before readings had numbers was answered by the words of the glossary: that is its reading 1.
create table key_reading_by_glossary (
    hash text primary key
);
insert into key_reading_by_glossary (hash) select hash from key_version;
