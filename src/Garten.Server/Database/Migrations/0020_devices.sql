-- Devices that may reach this server from beyond its own machine: each paired once with a code, bound to a person, and revoked here. Of what a
-- device shows for it only the hash is kept.
create table paired_device (
    id         uuid        primary key,
    person     uuid        not null references person,
    name       text        not null check (length(name) <= 200),
    token_hash bytea       not null unique,
    paired_at  timestamptz not null,
    seen_at    timestamptz not null,
    revoked_at timestamptz
);

-- Whose paired device sent it; null where it came from the server's own machine.
alter table command add column person uuid;
