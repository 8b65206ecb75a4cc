using ReadLeads = System.Collections.Generic.IReadOnlyList<System.Collections.Generic.IReadOnlyList<Garten.Core.Language.StatementReading>>;

namespace Garten.Core.Keys;

/// <summary>
/// How the statements of a key version are read, worked out by a host that has the time. Whoever has it needs no lexicon, which takes an
/// interpreted core the better part of a second, and takes each couplet out of it when it is first wanted.
/// </summary>
public sealed class ReadyReading
{
    private readonly Dictionary<string, Lazy<ReadLeads>> _couplets;
    private readonly Dictionary<string, IReadOnlyList<string>> _wanted;

    /// <summary>Makes it.</summary>
    /// <param name="hash">Hash of the version.</param>
    /// <param name="couplets">Its couplets by their labels, each with what gives the readings of its statements, lead by lead.</param>
    /// <param name="wanted">What <see cref="Wanted(string)"/> answers of couplets of which that is known already.</param>
    public ReadyReading(
        string hash,
        IEnumerable<KeyValuePair<string, Func<ReadLeads>>> couplets,
        IEnumerable<KeyValuePair<string, string[]>>? wanted = null
    )
    {
        ArgumentNullException.ThrowIfNull(couplets);
        Hash = hash;
        _wanted = (wanted ?? []).ToDictionary(w => w.Key, IReadOnlyList<string> (w) => w.Value, StringComparer.Ordinal);
        _couplets = couplets.ToDictionary(c => c.Key, c => new Lazy<ReadLeads>(c.Value), StringComparer.Ordinal);
    }

    /// <summary>Of a reading that is kept.</summary>
    public static ReadyReading Of(KeptReading reading)
    {
        ArgumentNullException.ThrowIfNull(reading);
        return new(reading.Hash, reading.Couplets.Select(c => KeyValuePair.Create<string, Func<ReadLeads>>(c.Couplet, () => c.Leads)));
    }

    /// <summary>Hash of the version.</summary>
    public string Hash { get; }

    /// <summary>Labels of the couplets that it holds.</summary>
    public IReadOnlyCollection<string> Couplets => _couplets.Keys;

    /// <summary>The readings of a couplet's statements, lead by lead; null of one that it doesn't hold. Of a broken binary form it is said
    /// that it is.</summary>
    public ReadLeads? Find(string couplet) => _couplets.GetValueOrDefault(couplet)?.Value;

    /// <summary>Ids of the characters of which one has to be seen to answer a couplet; empty of one that can be answered whatever can be
    /// seen, null of one that it doesn't hold. Where it came along no statement is taken out for it.</summary>
    public IReadOnlyList<string>? Wanted(string couplet) =>
        _wanted.TryGetValue(couplet, out var known) ? known
        : Find(couplet) is { } leads ? Wanted(leads)
        : null;

    /// <summary>The same of readings: empty where there is no statement, or one that nothing is understood of.</summary>
    internal static IReadOnlyList<string> Wanted(ReadLeads leads)
    {
        var statements = leads.SelectMany(l => l).ToList();
        return statements.Exists(s => s.Claims.Count == 0)
            ? []
            : [.. statements.SelectMany(s => s.Claims).Select(c => c.Character).Distinct(StringComparer.Ordinal)];
    }
}
