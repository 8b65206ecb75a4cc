using System.Text.Json.Serialization;

namespace Garten.Core.Deliveries;

/// <summary>What a delivery does with a record.</summary>
[JsonConverter(typeof(CamelCaseWords<DeliveredState>))]
public enum DeliveredState
{
    /// <summary>The partner didn't have it.</summary>
    New,

    /// <summary>The partner has it otherwise: it was named anew, moved, corrected.</summary>
    Changed,

    /// <summary>The partner has it as it is: it isn't sent again.</summary>
    Unchanged,

    /// <summary>The partner has it, and it holds no more.</summary>
    Withdrawn,
}

/// <summary>What a partner says of a record.</summary>
[JsonConverter(typeof(CamelCaseWords<PartnerVerdict>))]
public enum PartnerVerdict
{
    /// <summary>Taken in.</summary>
    Accepted,

    /// <summary>Something is asked before it is taken in.</summary>
    Queried,

    /// <summary>Not taken in.</summary>
    Rejected,
}

/// <summary>A record as it is passed on.</summary>
/// <param name="Id">Its identity: the same in every delivery.</param>
/// <param name="Name">The name that it bears.</param>
/// <param name="Mark">A hash of all that is told of it: another one, where anything is told otherwise.</param>
public sealed record DeliveredRecord(Guid Id, string Name, string Mark);

/// <summary>What a delivery does with a record, and what it was called before.</summary>
/// <param name="Record">The record; of a withdrawn one as the partner has it.</param>
/// <param name="State">What is done with it.</param>
/// <param name="NameBefore">The name that the partner knows it by; empty where it doesn't.</param>
public sealed record DeliveryChange(DeliveredRecord Record, DeliveredState State, string NameBefore);

/// <summary>What has to follow to somebody who got records before: under the same ids, new determinations and withdrawals too.</summary>
public static class DeliveryChanges
{
    /// <summary>Holds what a partner has against what there is now.</summary>
    /// <param name="known">What the partner has, by id: as it was passed on last, without what was withdrawn since.</param>
    /// <param name="now">What is to be passed on now; each record once.</param>
    /// <param name="stands">Whether a record that the partner has and that isn't among these still holds: it is of another place then, or
    /// of another taxon than was asked for.</param>
    /// <returns>The records of <paramref name="now"/> in their order, and then what is withdrawn.</returns>
    public static IReadOnlyList<DeliveryChange> Of(
        IReadOnlyDictionary<Guid, DeliveredRecord> known,
        IReadOnlyList<DeliveredRecord> now,
        Func<Guid, bool> stands
    )
    {
        ArgumentNullException.ThrowIfNull(known);
        ArgumentNullException.ThrowIfNull(now);
        ArgumentNullException.ThrowIfNull(stands);
        var ids = now.Select(r => r.Id).ToHashSet();
        return
        [
            .. now.Select(r =>
                known.TryGetValue(r.Id, out var before)
                    ? new DeliveryChange(
                        r,
                        string.Equals(before.Mark, r.Mark, StringComparison.Ordinal) ? DeliveredState.Unchanged : DeliveredState.Changed,
                        before.Name
                    )
                    : new DeliveryChange(r, DeliveredState.New, "")
            ),
            .. known
                .Values.Where(r => !ids.Contains(r.Id) && !stands(r.Id))
                .OrderBy(r => r.Id)
                .Select(r => new DeliveryChange(r, DeliveredState.Withdrawn, r.Name)),
        ];
    }
}
