namespace Garten.Server.Features.Evidence;

/// <summary>Looks at plants, and what persons have taught the reader of statements.</summary>
internal sealed class EvidenceFeature : IFeature
{
    public void Add(IServiceCollection services)
    {
        services.AddSingleton<EvidenceRepository>();
        services.AddSingleton<LookCheck>();
    }
}
