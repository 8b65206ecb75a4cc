using Garten.Core.Language;

namespace Garten.Core.Keys;

/// <summary>The statements of a key with their readings: per couplet, per lead.</summary>
/// <param name="Couplet">Label of the couplet.</param>
/// <param name="Leads">Per lead, its statements.</param>
public sealed record CoupletReadings(string Couplet, IReadOnlyList<IReadOnlyList<StatementReading>> Leads)
{
    /// <summary>Those of a whole key.</summary>
    public static IReadOnlyList<CoupletReadings> Of(BenchShelf shelf, KeyVersion version)
    {
        ArgumentNullException.ThrowIfNull(shelf);
        ArgumentNullException.ThrowIfNull(version);
        return [.. version.Key.Couplets.Select(c => new CoupletReadings(c.Label, shelf.Readings(version, c.Label)))];
    }
}

/// <summary>How a key version was read at one time.</summary>
/// <param name="Hash">Hash of the version.</param>
/// <param name="Number">Number of the reading, from 1.</param>
/// <param name="Couplets">The readings.</param>
public sealed record KeptReading(string Hash, int Number, IReadOnlyList<CoupletReadings> Couplets);
