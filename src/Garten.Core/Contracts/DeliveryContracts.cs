using Garten.Core.Deliveries;

namespace Garten.Core.Contracts;

/// <summary>Which records are passed on.</summary>
/// <param name="PlaceId">Those of a place; null for all.</param>
/// <param name="Taxon">Those of a name; empty for all.</param>
/// <param name="IsExact">Whether sensitive taxa are told with their exact places: only to whom the law and the holder of the land
/// allow.</param>
public sealed record DeliveryScope(Guid? PlaceId = null, string Taxon = "", bool IsExact = false);

/// <summary>Keeps what is passed on to somebody, as it is at this moment. What they have already as it is isn't sent again.</summary>
/// <param name="Id">Identity of the command.</param>
/// <param name="DeliveryId">Identity of the delivery.</param>
/// <param name="Partner">To whom; written alike, it is the same partner.</param>
/// <param name="Scope">Which records.</param>
/// <param name="By">Who passes them on.</param>
/// <param name="Note">What was agreed; may be empty.</param>
public sealed record KeepDeliveryCommand(
    Guid Id,
    Guid DeliveryId,
    string Partner,
    DeliveryScope Scope,
    PersonReference By,
    string Note = ""
) : Command(Id);

/// <summary>Notes what a partner says of a record that was passed on. It stands beside ours and changes nothing of it; said again, the
/// newest holds.</summary>
/// <param name="Id">Identity of the command.</param>
/// <param name="Partner">Who says it.</param>
/// <param name="OccurrenceId">The record.</param>
/// <param name="Verdict">What is said.</param>
/// <param name="Says">In their words; may be empty where it was accepted.</param>
/// <param name="On">On which day, <c>YYYY-MM-DD</c>.</param>
/// <param name="By">Who notes it.</param>
public sealed record NoteVerdictCommand(
    Guid Id,
    string Partner,
    Guid OccurrenceId,
    PartnerVerdict Verdict,
    string Says,
    string On,
    PersonReference By
) : Command(Id);

/// <summary>How many records a delivery has of each kind.</summary>
/// <param name="New">That the partner didn't have.</param>
/// <param name="Changed">That it has otherwise.</param>
/// <param name="Withdrawn">That hold no more.</param>
/// <param name="Unchanged">That it has as they are; they weren't sent.</param>
public sealed record DeliveryCounts(int New, int Changed, int Withdrawn, int Unchanged);

/// <summary>A delivery.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="Number">Which one to this partner it was, from 1 on.</param>
/// <param name="Partner">To whom.</param>
/// <param name="On">When it was kept.</param>
/// <param name="By">Who passed it on.</param>
/// <param name="Note">What was agreed.</param>
/// <param name="Scope">Which records.</param>
/// <param name="PlaceName">Name of the place that it is narrowed to; empty for all.</param>
/// <param name="Counts">How many it has.</param>
/// <param name="Queried">How many of its records the partner asks something about, or hasn't taken in.</param>
public sealed record Delivery(
    Guid Id,
    int Number,
    string Partner,
    DateTimeOffset On,
    string By,
    string Note,
    DeliveryScope Scope,
    string PlaceName,
    DeliveryCounts Counts,
    int Queried
);

/// <summary>A record of a delivery.</summary>
/// <param name="OccurrenceId">The record.</param>
/// <param name="Name">The name that it was passed on with.</param>
/// <param name="NameBefore">The name that the partner knew it by; empty where it didn't.</param>
/// <param name="State">What was done with it.</param>
/// <param name="Date">The day, as it was told.</param>
/// <param name="Locality">The place, as it was told.</param>
/// <param name="Said">What the partner says last; null for nothing.</param>
/// <param name="Address">The page of the record; empty where it isn't here any more.</param>
public sealed record DeliveredItem(
    Guid OccurrenceId,
    string Name,
    string NameBefore,
    DeliveredState State,
    string Date,
    string Locality,
    VerdictSaid? Said,
    string Address
);

/// <summary>What a partner said.</summary>
/// <param name="Partner">Who.</param>
/// <param name="Verdict">What.</param>
/// <param name="Says">In their words.</param>
/// <param name="On">On which day.</param>
public sealed record VerdictSaid(string Partner, PartnerVerdict Verdict, string Says, DateOnly On);

/// <summary>What is said of a place's records.</summary>
/// <param name="PlaceName">The place.</param>
/// <param name="PassingOn">Whether they may be passed on, to whom, how precisely; empty where nobody said.</param>
public sealed record PassingOnLeave(string PlaceName, string PassingOn);

/// <summary>What a delivery would have.</summary>
/// <param name="Counts">How many records of each kind.</param>
/// <param name="Changes">Those that are changed or withdrawn; the first of them.</param>
/// <param name="Places">What is said of the records of the places that they are from.</param>
public sealed record DeliveryPreview(DeliveryCounts Counts, IReadOnlyList<DeliveryChange> Changes, IReadOnlyList<PassingOnLeave> Places);

/// <summary>Where a record went, and what is said of it there.</summary>
/// <param name="DeliveryId">The delivery in which it was last.</param>
/// <param name="Partner">To whom.</param>
/// <param name="On">When.</param>
/// <param name="State">What was done with it.</param>
/// <param name="Name">The name that the partner has.</param>
/// <param name="Said">What it says; null for nothing.</param>
public sealed record PassedOn(Guid DeliveryId, string Partner, DateTimeOffset On, DeliveredState State, string Name, VerdictSaid? Said);
