-- Looks at a plant; a correction is a new one that names the one it supersedes.
create table observation (
    id          uuid        primary key,
    number      bigint      generated always as identity unique,
    plant_id    uuid        not null references plant,
    character   text        not null check (length(character) between 1 and 200),
    observed_on date        not null,
    supersedes  uuid,
    observer    uuid        not null references person,
    content     jsonb       not null,
    recorded_at timestamptz not null
);
create index observation_plant on observation (plant_id, number);

-- Words that persons have taught for states, and readings that they have set for statements; of several the newest counts.
create table taught_term (
    number    bigint generated always as identity primary key,
    character text   not null check (length(character) between 1 and 200),
    state     text   not null check (length(state) between 1 and 200),
    term      text   not null check (length(term) between 1 and 200),
    taught_at timestamptz not null
);
create table corrected_statement (
    number       bigint generated always as identity primary key,
    statement    text   not null check (length(statement) between 1 and 10000),
    claims       jsonb  not null,
    corrected_at timestamptz not null
);
create index corrected_statement_newest on corrected_statement (statement, number desc);

alter table determination add column hand jsonb not null default '[]';

create trigger observation_is_a_fact before update or delete on observation for each row execute function refuse_change();
create trigger taught_term_is_a_fact before update or delete on taught_term for each row execute function refuse_change();
create trigger corrected_statement_is_a_fact before update or delete on corrected_statement for each row execute function refuse_change();
