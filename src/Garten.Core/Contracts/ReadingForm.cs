using Garten.Core.Evidence;
using Garten.Core.Language;
using Garten.Core.Packs;

namespace Garten.Core.Contracts;

/// <summary>The binary form of the readings of a couplet's statements, lead by lead.</summary>
internal static class ReadingForm
{
    public static void Write(PackWriter to, IReadOnlyList<IReadOnlyList<StatementReading>> leads) =>
        to.Many(leads, lead => to.Many(lead, reading => Write(to, reading)));

    public static IReadOnlyList<IReadOnlyList<StatementReading>> Read(PackReader from) =>
        from.Many(() => (IReadOnlyList<StatementReading>)from.Many(() => ReadOne(from)));

    private static void Write(PackWriter to, StatementReading reading)
    {
        to.Text(reading.Text);
        WriteClaims(to, reading.Claims);
        to.Many(reading.Parts, part =>
        {
            to.Count(part.At);
            to.Count(part.Length);
            to.Count((int)part.Kind);
        });
        to.Flag(reading.IsCorrected);
        to.Flag(reading.Clauses is not null);
        to.Many(reading.Clauses ?? [], clause =>
        {
            to.Count(clause.At);
            to.Count(clause.Length);
            to.Count((int)clause.Kind);
            to.Many(clause.Proposals, claims => WriteClaims(to, claims));
        });
    }

    private static StatementReading ReadOne(PackReader from)
    {
        var (text, claims) = (from.Text(), ReadClaims(from));
        var parts = from.Many(() => new StatementPart(from.Count(), from.Count(), from.OneOf<StatementPartKind>()));
        var (isCorrected, hasClauses) = (from.Flag(), from.Flag());
        var clauses = from.Many(() =>
            new ReadClause(
                from.Count(),
                from.Count(),
                from.OneOf<ClauseKind>(),
                from.Many(() => (IReadOnlyList<StatementClaim>)ReadClaims(from))
            )
        );
        return new StatementReading(text, claims, parts, isCorrected, hasClauses ? clauses : null);
    }

    private static void WriteClaims(PackWriter to, IReadOnlyList<StatementClaim> claims) => to.Many(claims, claim =>
        {
            to.Text(claim.Character);
            to.Texts(claim.States);
            ShelfFile.WriteRange(to, claim.Range);
            to.Number(claim.Modality);
            to.Flag(claim.Denied is not null);
            to.Texts(claim.Denied ?? []);
            to.Count((int)claim.Age);
        });

    private static StatementClaim[] ReadClaims(PackReader from) =>
        from.Many(() =>
        {
            var (character, states, range, modality) = (from.Text(), from.Texts(), ShelfFile.ReadRange(from), from.Number() ?? 0);
            var hasDenied = from.Flag();
            var denied = from.Texts();
            return new StatementClaim(character, states, range, modality, hasDenied ? denied : null, from.OneOf<PartAge>());
        });
}
