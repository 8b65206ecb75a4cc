-- Who named or typed a line of a list stands in it by name: a person who is erased leaves it too.
alter function erase(uuid) rename to erase_delivered;
create function erase(subject uuid) returns uuid language plpgsql as $$
declare
    gone     text := (select name from person where id = subject);
    of_plant uuid;
begin
    of_plant := erase_delivered(subject);
    if gone <> '' then
        perform set_config('garten.erasing', 'on', true);
        update list_line set details = jsonb_set(details, '{determiner}', '""') where details->>'determiner' = gone;
        update list_line set details = jsonb_set(details, '{typist}', '""') where details->>'typist' = gone;
        perform set_config('garten.erasing', 'off', true);
    end if;
    return of_plant;
end $$;
