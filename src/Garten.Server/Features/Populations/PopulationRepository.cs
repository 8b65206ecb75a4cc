using System.Text.Json;
using Garten.Core.Contracts;
using Garten.Core.Surveys;
using Garten.Server.Commands;
using Garten.Server.Database;
using Garten.Server.Features.People;
using Garten.Server.Features.Places;
using Garten.Server.Features.Plants;
using Npgsql;

namespace Garten.Server.Features.Populations;

/// <summary>A population as its rows say, before anything is worked out.</summary>
internal sealed record PopulationRow(
    Guid Id,
    string Name,
    string Taxon,
    Place Place,
    string Bounds,
    IReadOnlyList<PopulationCount> Counts,
    IReadOnlyList<PeggedPlant> Pegs,
    IReadOnlyList<Threat> Threats
);

/// <summary>Populations, their counts, their marked plants and what threatens them.</summary>
internal sealed class PopulationRepository(NpgsqlDataSource database)
{
    /// <summary>All populations by place and name.</summary>
    public async Task<IReadOnlyList<PopulationRow>> ListAsync(CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        var rows = await connection
            .Command(
                $"select q.id, q.name, q.taxon, q.bounds, {PlaceRepository.Columns} from population q join place l on l.id = q.place_id order by l.name, q.name, q.id"
            )
            .ReadAllAsync(
                r => new PopulationRow(
                    r.GetGuid(0),
                    r.GetString(1),
                    r.GetString(2),
                    PlaceRepository.Read(r, 4),
                    r.GetString(3),
                    [],
                    [],
                    []
                ),
                stop
            );
        var counts = (
            await connection
                .Command(
                    "select c.population_id, c.id, c.counted_on, c.unit, c.counted, c.note, w.name, c.supersedes, c.known, c.found from population_count c join person w on w.id = c.counter order by c.counted_on, c.number"
                )
                .ReadAllAsync(
                    r =>
                        (
                            Of: r.GetGuid(0),
                            Count: new PopulationCount(
                                r.GetGuid(1),
                                r.GetFieldValue<DateOnly>(2),
                                Enum.Parse<CountUnit>(r.GetString(3), ignoreCase: true),
                                r.GetInt32(4),
                                r.GetString(5),
                                r.GetString(6),
                                r.IsDBNull(7) ? null : r.GetGuid(7),
                                r.GetInt32(8),
                                r.GetInt32(9)
                            )
                        ),
                    stop
                )
        ).ToLookup(c => c.Of, c => c.Count);
        var threats = (
            await connection
                .Command(
                    "select t.population_id, t.id, t.noted_on, t.text, t.act_by, coalesce(c.text, '') from population_threat t left join population_threat c on c.closes = t.id where t.closes is null order by t.act_by nulls last, t.noted_on, t.id"
                )
                .ReadAllAsync(
                    r =>
                        (
                            Of: r.GetGuid(0),
                            Threat: new Threat(
                                r.GetGuid(1),
                                r.GetFieldValue<DateOnly>(2),
                                r.GetString(3),
                                PlantRepository.Day(r, 4),
                                r.GetString(5)
                            )
                        ),
                    stop
                )
        ).ToLookup(t => t.Of, t => t.Threat);
        var plants = await connection
            .Command("select population_id, id, label, tagged_on from plant where population_id is not null order by label, id")
            .ReadAllAsync(r => (Of: r.GetGuid(0), Id: r.GetGuid(1), Label: r.GetString(2), On: r.GetFieldValue<DateOnly>(3)), stop);
        var visits = (await PlantRepository.VisitsAsync(connection, [.. plants.Select(p => p.Id)], stop)).ToLookup(v => v.PlantId);
        var pegs = plants.ToLookup(p => p.Of, p => new PeggedPlant(p.Id, p.Label, p.On, [.. visits[p.Id]]));
        return
        [
            .. rows.Select(r =>
                r with
                {
                    Counts = [.. counts[r.Id]],
                    Pegs = [.. pegs[r.Id]],
                    Threats = [.. threats[r.Id].DistinctBy(t => t.Id)],
                }
            ),
        ];
    }

    internal static async Task<Guid?> PlaceOfAsync(NpgsqlConnection connection, Guid id, CancellationToken stop)
    {
        var found = await connection.Command("select place_id from population where id = $1", id).ReadAllAsync(r => r.GetGuid(0), stop);
        return found.Count == 0 ? null : found[0];
    }

    // False where one of this id stands already.
    internal static async Task<bool> AddAsync(NpgsqlConnection connection, SavePopulationCommand it, CancellationToken stop) =>
        await connection
            .Command(
                "insert into population (id, place_id, name, taxon, bounds) values ($1, $2, $3, $4, $5) on conflict (id) do nothing",
                it.PopulationId,
                it.PlaceId,
                it.Name,
                it.Taxon,
                it.Bounds
            )
            .RunAsync(stop) == 1;

    internal static async Task<Guid?> PopulationOfCountAsync(NpgsqlConnection connection, Guid count, CancellationToken stop)
    {
        var found = await connection
            .Command("select population_id from population_count where id = $1", count)
            .ReadAllAsync(r => r.GetGuid(0), stop);
        return found.Count == 0 ? null : found[0];
    }

    internal static async Task<bool> CountAsync(CommandContext context, CountPopulationCommand it, DateOnly on, CancellationToken stop)
    {
        await PersonRepository.EnsureAsync(context, it.Recorder, stop);
        return await context
                .Connection.Command(
                    "insert into population_count (id, population_id, counted_on, unit, counted, note, counter, supersedes, recorded_at, known, found) values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11) on conflict (id) do nothing",
                    it.CountId,
                    it.PopulationId,
                    on,
                    JsonNamingPolicy.CamelCase.ConvertName(it.Unit.ToString()),
                    it.Number,
                    it.Note,
                    it.Recorder.Id,
                    it.Supersedes,
                    context.Now,
                    it.Known,
                    it.Found
                )
                .RunAsync(stop) == 1;
    }

    internal static async Task<Guid?> PopulationOfThreatAsync(NpgsqlConnection connection, Guid threat, CancellationToken stop)
    {
        var found = await connection
            .Command("select population_id from population_threat where id = $1", threat)
            .ReadAllAsync(r => r.GetGuid(0), stop);
        return found.Count == 0 ? null : found[0];
    }

    internal static async Task<bool> ThreatenAsync(
        NpgsqlConnection connection,
        NoteThreatCommand it,
        DateOnly on,
        DateOnly? actBy,
        DateTimeOffset now,
        CancellationToken stop
    ) =>
        await connection
            .Command(
                "insert into population_threat (id, population_id, noted_on, text, act_by, closes, recorded_at) values ($1, $2, $3, $4, $5, $6, $7) on conflict (id) do nothing",
                it.ThreatId,
                it.PopulationId,
                on,
                it.Text,
                actBy,
                it.Closes,
                now
            )
            .RunAsync(stop) == 1;
}
