namespace Garten.Server.Features.Sources;

/// <summary>Where texts are from, what may be done with them, and who sees them.</summary>
internal sealed class SourcesFeature : IFeature
{
    public void Add(IServiceCollection services)
    {
        services.AddHttpContextAccessor();
        services.AddSingleton<Viewer>();
        services.AddSingleton<SourceRepository>();
    }
}
