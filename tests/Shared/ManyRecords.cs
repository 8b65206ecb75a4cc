using Npgsql;

namespace Garten.Testing;

/// <summary>A database with very many records, made by the database itself: of size, and otherwise without sense.</summary>
public static class ManyRecords
{
    /// <summary>Fills an empty, migrated database.</summary>
    /// <param name="connectionString">The database.</param>
    /// <param name="plants">How many plants.</param>
    /// <param name="determinations">How many names were put on them, one look each.</param>
    /// <param name="observations">How many looks at characters.</param>
    /// <param name="stop">Stops it.</param>
    public static async Task MakeAsync(string connectionString, int plants, int determinations, int observations, CancellationToken stop)
    {
        await using var source = NpgsqlDataSource.Create(
            new NpgsqlConnectionStringBuilder(connectionString) { CommandTimeout = 0 }.ConnectionString
        );
        await using var connection = await source.OpenConnectionAsync(stop);
        foreach (var sql in Statements(plants, determinations, observations))
        {
            await using var command = new NpgsqlCommand(sql, connection);
            await command.ExecuteNonQueryAsync(stop);
        }
    }

    private static string Id(string kind, string number) => $"md5('{kind}' || ({number}))::uuid";

    private static IEnumerable<string> Statements(int plants, int determinations, int observations) =>
        [
            $"insert into person (id, name) select {Id("person", "n")}, 'Recorder ' || n from generate_series(0, 19) n",
            $"insert into place (id, name, locality, latitude, longitude, uncertainty_metres, caution, cell, elevation_metres, habitats) select {Id("place", "n")}, 'Place ' || n, '', 57 + n * 0.001, -11, 50, '', 'B2', n, '{{}}' from generate_series(0, 199) n",
            $"insert into plant (id, place_id, label, tagged_on) select {Id("plant", "n")}, {Id("place", "n % 200")}, 'peg ' || n, date '2024-01-01' from generate_series(0, {plants - 1}) n",
            $"insert into occurrence (id, plant_id, event_date, recorded_by) select {Id("occurrence", "n")}, {Id("plant", $"n % {plants}")}, date '2024-01-01' + n % 900, {Id("person", "n % 20")} from generate_series(0, {determinations - 1}) n",
            $$$"""
                insert into determination (id, occurrence_id, plant_id, place_id, event_date, identified_by, recorded_at, name, names, trail, note, hand, floras, confirmation)
                select {{{Id("determination", "n")}}}, {{{Id("occurrence", "n")}}}, {{{Id("plant", $"n % {plants}")}}}, {{{Id(
                    "place",
                    $"n % {plants} % 200"
                )}}}, date '2024-01-01' + n % 900, {{{Id("person", "n % 20")}}}, now(),
                    'Genus' || n % 40 || ' species' || n % 800, array['Genus' || n % 40 || ' species' || n % 800], '[]', '', '[]', '{}',
                    case when n % 10 = 0 then '{"grade":"reasoned","needs":[{"id":"fruit","character":"fruit-type","text":"Look at the fruit","windows":[{"from":200,"to":260}]}],"cautions":[]}'::jsonb end
                from generate_series(0, {{{determinations - 1}}}) n
                """,
            $$$"""
                insert into observation (id, plant_id, character, observed_on, observer, recorded_at, content)
                select {{{Id("observation", "n")}}}, {{{Id("plant", $"n % {plants}")}}}, 'leaf-margin', date '2024-01-01' + n % 900, {{{Id(
                    "person",
                    "n % 20"
                )}}}, now(),
                    jsonb_build_object('id', {{{Id(
                    "observation",
                    "n"
                )}}}, 'character', 'leaf-margin', 'outcome', 'seen', 'states', array['toothed'], 'together', false, 'readings', '[]'::jsonb, 'show', 0, 'of', 0,
                        'sureness', 'sure', 'context', '{}'::jsonb, 'tool', 'eye', 'date', to_char(date '2024-01-01' + n % 900, 'YYYY-MM-DD'), 'note', '', 'withdrawn', false, 'fromCouplet', '')
                from generate_series(0, {{{observations - 1}}}) n
                """,
            $$$"""
                insert into plant_visit (id, plant_id, visited_on, state, phases, sexes, note, visitor, recorded_at)
                select {{{Id("visit", "n")}}}, {{{Id(
                    "plant",
                    $"n % {plants}"
                )}}}, date '2024-01-01' + n % 900, 'alive', case when n % 10 = 0 then '[{"phase":"flower","stage":"shown"}]'::jsonb when n % 10 = 1 then '[{"phase":"flower","stage":"notYet"}]' else '[]' end, '[]', '', {{{Id(
                    "person",
                    "n % 20"
                )}}}, now() from generate_series(0, {{{plants * 2 - 1}}}) n
                """,
            "select rebuild_lists()",
            "analyze",
        ];
}
