using Garten.Core.Language;

namespace Garten.Core.Keys;

/// <summary>A statement that is read otherwise once a word is taught.</summary>
/// <param name="Title">Title of its key.</param>
/// <param name="Couplet">Label of its couplet.</param>
/// <param name="Text">The statement.</param>
/// <param name="Before">What it claims now, in words; empty where nothing.</param>
/// <param name="After">What it will claim, in words; empty where nothing.</param>
public sealed record ChangedStatement(string Title, string Couplet, string Text, string Before, string After)
{
    /// <summary>Whether something that is claimed now will be claimed no more.</summary>
    public bool Loses => Before.Length > 0 && Before.Split("; ").Except(After.Split("; "), StringComparer.Ordinal).Any();
}

/// <summary>What teaching a word changes, seen before it is taught.</summary>
/// <param name="Known">What the word already is, in words; empty where it isn't known.</param>
/// <param name="Changed">Statements that are read otherwise then, those first that lose a claim; at most <see cref="Most"/>.</param>
/// <param name="Count">How many they are in all.</param>
/// <param name="Losing">How many of them lose a claim.</param>
/// <param name="Book">The book that the word can be taught for alone.</param>
public sealed record TeachingPreview(string Known, IReadOnlyList<ChangedStatement> Changed, int Count, int Losing, string Book)
{
    /// <summary>No more are shown.</summary>
    public const int Most = 12;

    /// <summary>Looks through all keys for what a word changes.</summary>
    /// <param name="shelf">The keys.</param>
    /// <param name="term">The word with its meaning and, where it is taught for one book alone, that book.</param>
    /// <param name="of">The key that it is taught at; null where it is none.</param>
    public static TeachingPreview Of(BenchShelf shelf, TaughtTerm term, KeyVersion? of)
    {
        ArgumentNullException.ThrowIfNull(shelf);
        ArgumentNullException.ThrowIfNull(term);
        List<ChangedStatement> changed = [];
        foreach (var version in shelf.Keys.Versions.DistinctBy(v => KeyTitle.Plain(v.Key.Title)))
        {
            if (term.Book.Length > 0 && KeyTitle.Plain(version.TaughtFor) != KeyTitle.Plain(term.Book))
                continue;
            foreach (var couplet in version.Key.Couplets)
            {
                // What hasn't the word in it isn't read otherwise.
                if (!couplet.Leads.SelectMany(l => l.Statements).Any(s => s.Contains(term.Term, StringComparison.OrdinalIgnoreCase)))
                    continue;
                var (before, after) = (shelf.Readings(version, couplet.Label), shelf.WithTaught(version, couplet.Label, term));
                for (var l = 0; l < before.Count; l++)
                {
                    for (var s = 0; s < before[l].Count; s++)
                    {
                        var (was, will) = (In(before[l][s]), In(after[l][s]));
                        if (was != will)
                            changed.Add(new(version.Key.Title, couplet.Label, before[l][s].Text, was, will));
                    }
                }
            }
        }
        return new(
            shelf.WhatIs(term.Term),
            [.. changed.OrderByDescending(c => c.Loses).Take(Most)],
            changed.Count,
            changed.Count(c => c.Loses),
            of?.TaughtFor ?? ""
        );

        string In(StatementReading reading) => ClaimWords.Of(reading.Claims, shelf.Table.Find);
    }
}
