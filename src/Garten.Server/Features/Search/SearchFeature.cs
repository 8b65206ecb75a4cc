using Garten.Core.Contracts;
using Garten.Server.Features.Floras;
using Garten.Server.Features.Keys;
using Garten.Server.Features.Places;
using Garten.Server.Features.Plants;
using Garten.Server.Features.Vocabulary;
using Garten.Server.Hosting;

namespace Garten.Server.Features.Search;

/// <summary>One search of taxa, plants, places, keys and terms.</summary>
internal sealed class SearchFeature : IFeature
{
    public void Add(IServiceCollection services) { }

    public void Map(RouteGroupBuilder api) =>
        api.MapGet(
                "/search",
                async (
                    string? text,
                    FloraRepository floras,
                    PlantRepository plants,
                    PlaceRepository places,
                    KeyRepository keys,
                    VocabularyRepository vocabularies,
                    CancellationToken stop
                ) =>
                {
                    var wanted = (text ?? "").Trim();
                    if (wanted.Length > SearchIndex.LongestText)
                        wanted = wanted[..SearchIndex.LongestText];
                    if (wanted.Length == 0)
                        return TypedResults.Ok<IReadOnlyList<Findable>>([]);
                    var (tagged, _) = await plants.PageAsync(new PlantFilter(Text: wanted), null, SearchIndex.MostOfKind, stop);
                    var things = new SearchedThings(tagged, await places.ListAsync(stop), await keys.TitlesAsync(stop));
                    var taxa = (await floras.SeenAsync(stop)).SelectMany(f => f.Taxa.Select(t => Findable.Of(t, f.Id)));
                    return TypedResults.Ok(
                        new SearchIndex(things.All().Concat(taxa)).Find(wanted, (await vocabularies.CurrentAsync(stop)).Botany)
                    );
                }
            )
            .Exact()
            .WithName("search")
            .WithSummary(
                "Taxa by any name, tagged plants by tag or name, places, keys and terms of the glossary, by the beginnings of words; "
                    + "what is in season, where it is asked for."
            );
}
