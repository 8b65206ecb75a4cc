-- Parts and qualities that curators have added or changed; of one part or quality the newest counts. What ships with the program isn't here.
create table vocabulary_entry (
    number     bigint generated always as identity primary key,
    id         uuid        not null unique,
    kind       text        not null check (kind in ('part', 'quality')),
    entry      text        not null check (length(entry) between 1 and 60),
    content    jsonb       not null,
    defined_at timestamptz not null
);
create trigger vocabulary_entry_is_a_fact before update or delete on vocabulary_entry for each row execute function refuse_change();

-- Every vocabulary that anything was published with, whole: an update of the program never reads what is published otherwise.
create table vocabulary_version (
    hash    text primary key,
    content text        not null,
    kept_at timestamptz not null
);
create trigger vocabulary_version_is_a_fact before update or delete on vocabulary_version for each row execute function refuse_change();
