namespace Garten.Server.Features;

/// <summary>A part of what the server does, whole in one folder: its services, its addresses. It is found by its type; nothing else has to
/// name it.</summary>
internal interface IFeature
{
    /// <summary>Adds its services.</summary>
    void Add(IServiceCollection services) { }

    /// <summary>Maps its addresses below the root of the API.</summary>
    void Map(RouteGroupBuilder api) { }
}

internal static class AllFeatures
{
    private static IReadOnlyList<IFeature> All { get; } =
    [
        .. typeof(IFeature)
            .Assembly.GetTypes()
            .Where(t => t is { IsClass: true, IsAbstract: false } && t.IsAssignableTo(typeof(IFeature)))
            .OrderBy(t => t.FullName, StringComparer.Ordinal)
            .Select(t => (IFeature)Activator.CreateInstance(t)!),
    ];

    public static void AddFeatures(this IServiceCollection services)
    {
        foreach (var feature in All)
            feature.Add(services);
    }

    public static void MapFeatures(this RouteGroupBuilder api)
    {
        foreach (var feature in All)
            feature.Map(api);
    }
}
