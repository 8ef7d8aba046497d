using System.Text.Json;

namespace Zendle.Core.Merging;

/// <summary>
/// Log odds (base 2) for each level of agreement (Fellegi, Sunter 1969): log2 of how often it occurs among records of
/// one work, divided by how often among records of two works that share a key. Estimated on a labelled world by
/// <see cref="WeightFit"/>; kept in <c>merge-weights.json</c>.
/// </summary>
/// <param name="Identifier">By <see cref="IdentifierLevel"/>.</param>
/// <param name="Title">By <see cref="TitleLevel"/>.</param>
/// <param name="Year">By <see cref="YearLevel"/>.</param>
/// <param name="People">By <see cref="PeopleLevel"/>.</param>
/// <param name="Location">By <see cref="LocationLevel"/>.</param>
/// <param name="Kind">By <see cref="KindLevel"/>.</param>
/// <param name="Threshold">Score from which two records are one work.</param>
public sealed record MergeWeights(
    IReadOnlyDictionary<IdentifierLevel, double> Identifier,
    IReadOnlyDictionary<TitleLevel, double> Title,
    IReadOnlyDictionary<YearLevel, double> Year,
    IReadOnlyDictionary<PeopleLevel, double> People,
    IReadOnlyDictionary<LocationLevel, double> Location,
    IReadOnlyDictionary<KindLevel, double> Kind,
    double Threshold
)
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        WriteIndented = true,
        RespectRequiredConstructorParameters = true,
    };

    /// <summary>The weights that ship with Zendle.</summary>
    public static MergeWeights Shipped { get; } = Read();

    /// <summary>The sum of the levels' weights.</summary>
    public double Score(Comparison c) =>
        Identifier[c.Identifier]
        + Title[c.Title]
        + Year[c.Year]
        + People[c.People]
        + Location[c.Location]
        + Kind[c.Kind];

    /// <summary>The weights as they are kept.</summary>
    public string Write() => JsonSerializer.Serialize(this, Json);

    private static MergeWeights Read()
    {
        using var stream =
            typeof(MergeWeights).Assembly.GetManifestResourceStream("merge-weights.json")
            ?? throw new InvalidOperationException("The weights of merging are missing.");
        return JsonSerializer.Deserialize<MergeWeights>(stream, Json)!;
    }
}
