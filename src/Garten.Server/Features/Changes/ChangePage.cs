namespace Garten.Server.Features.Changes;

/// <summary>What has changed since a device asked last: each thing once, however often it changed.</summary>
/// <param name="Epoch">Which life of the database this is: the number of a change means something within one alone.</param>
/// <param name="Earlier">Its earlier lives: one that a device knows is here, where the database was set back to a copy; it is not, where
/// this is another database.</param>
/// <param name="Last">The number of the last change that is told here: from here the device reads on.</param>
/// <param name="IsMore">Whether more has changed after that.</param>
/// <param name="Plants">The plants that changed, were tagged, visited or named.</param>
/// <param name="Visits">The visits to places that changed, or on whose lists a plant has another name.</param>
/// <param name="Populations">Whether a population has changed.</param>
/// <param name="Places">Whether a place has.</param>
/// <param name="Surveys">Whether a survey has, one of its plots, or what was recorded in one.</param>
/// <param name="Keys">Whether a key has, or how statements of keys are read.</param>
/// <param name="Vocabulary">Whether parts and qualities have.</param>
/// <param name="All">Whether more changed than is told one by one (a file of records was taken in or back, a place was changed): what is on
/// the device is fetched anew as a whole.</param>
/// <param name="Erased">Whether something was erased on request.</param>
public sealed record ChangePage(
    Guid Epoch,
    IReadOnlyList<Guid> Earlier,
    long Last,
    bool IsMore,
    IReadOnlyList<Guid> Plants,
    IReadOnlyList<Guid> Visits,
    bool Populations,
    bool Places,
    bool Surveys,
    bool Keys,
    bool Vocabulary,
    bool All,
    bool Erased
);
