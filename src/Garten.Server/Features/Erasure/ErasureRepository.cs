using System.Net;
using Garten.Core.Contracts;
using Garten.Server.Database;
using Garten.Server.Features.Devices;
using Npgsql;

namespace Garten.Server.Features.Erasure;

/// <summary>What was erased on request: ids, and nothing else.</summary>
internal sealed class ErasureRepository(NpgsqlDataSource database)
{
    /// <summary>All of it, oldest first.</summary>
    public async Task<IReadOnlyList<ErasedSubject>> ListAsync(CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await connection
            .Command("select id, kind from erased order by erased_at, id")
            .ReadAllAsync(r => new ErasedSubject(r.GetGuid(0), r.GetString(1)), stop);
    }

    /// <summary>Whether something was erased.</summary>
    public async Task<bool> IsErasedAsync(Guid id, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return (await AmongAsync(connection, [id], stop)).Count > 0;
    }

    /// <summary>Those of some ids that were erased. A person isn't among them: who is named still records, without a name.</summary>
    internal static async Task<HashSet<Guid>> AmongAsync(NpgsqlConnection connection, Guid[] ids, CancellationToken stop) =>
        [
            .. await connection
                .Command("select id from erased where id = any($1) and kind <> 'person'", (object)ids)
                .ReadAllAsync(r => r.GetGuid(0), stop),
        ];

    internal static async Task EraseAsync(NpgsqlConnection connection, Guid subject, CancellationToken stop)
    {
        var names = await connection.Command("select name from person where id = $1", subject).ReadAllAsync(r => r.GetString(0), stop);
        await connection.Command("select erase($1)", subject).RunAsync(stop);
        await DeviceRepository.ForgetOfAsync(connection, subject, stop);
        if (names is [{ Length: > 0 } name] && name != Documents.ErasedName)
            await TakeOutOfReportsAsync(connection, name, stop);
    }

    // Reports that were kept bear the names of who recorded. A copy that was sent is beyond reach; the one here is not.
    private static async Task TakeOutOfReportsAsync(NpgsqlConnection connection, string name, CancellationToken stop)
    {
        // Each sign by itself: none is taken for a part of the pattern.
        var pattern = string.Concat(WebUtility.HtmlEncode(name).Select(c => char.IsLetterOrDigit(c) ? $"{c}" : $"\\{c}"));
        await connection
            .Command(
                """
                with erasing as (select set_config('garten.erasing', 'on', true) as isOn)
                update survey_report set page = regexp_replace(page, $1, $2, 'g') from erasing where erasing.isOn = 'on' and page ~ $1
                """,
                $"(?<![[:alnum:]]){pattern}(?![[:alnum:]])",
                Documents.ErasedName
            )
            .RunAsync(stop);
        // In what was passed on names stand as JSON has them.
        var escaped = System.Text.Json.JsonEncodedText.Encode(name, System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping);
        var inJson = string.Concat(escaped.Value.Select(c => char.IsLetterOrDigit(c) ? $"{c}" : $"\\{c}"));
        await connection
            .Command(
                """
                with erasing as (select set_config('garten.erasing', 'on', true) as isOn)
                update delivered set cells = regexp_replace(cells::text, $1, $2, 'g')::jsonb from erasing
                where erasing.isOn = 'on' and cells::text ~ $1
                """,
                $"(?<![[:alnum:]]){inJson}(?![[:alnum:]])",
                Documents.ErasedName
            )
            .RunAsync(stop);
        await connection.Command("select set_config('garten.erasing', 'off', true)").RunAsync(stop);
    }

    /// <summary>Erases again what a copy of the database has brought back, and answers with all that was erased.</summary>
    public async Task<IReadOnlyList<Guid>> ReplayAsync(IReadOnlyCollection<Guid> listed, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        foreach (var id in listed)
            await EraseAsync(connection, id, stop);
        return await connection.Command("select id from erased order by erased_at, id").ReadAllAsync(r => r.GetGuid(0), stop);
    }
}
