namespace Zendle.Core.Merging;

/// <summary>Says in words what speaks for and against two records being one work.</summary>
public static class EvidenceWords
{
    /// <summary>What speaks for it, the strongest first: "same DOI", "same title", "same people".</summary>
    public static IReadOnlyList<string> For(Comparison c) =>
        [
            .. new[]
            {
                c.Identifier switch
                {
                    IdentifierLevel.Same => "same identifier",
                    IdentifierLevel.DeclaredVersion => "one declares the other a version",
                    _ => null,
                },
                c.Title switch
                {
                    TitleLevel.Same => "same title",
                    TitleLevel.Beginning => "one title begins the other",
                    TitleLevel.VeryClose => "titles differ in a letter or two",
                    TitleLevel.Close => "titles are close",
                    _ => null,
                },
                c.People switch
                {
                    PeopleLevel.Same => "same people",
                    PeopleLevel.SameOne => "same person",
                    PeopleLevel.Shortened => "one list of people is shorter",
                    PeopleLevel.Half => "half of the people agree",
                    _ => null,
                },
                c.Location switch
                {
                    LocationLevel.Same => "same venue and page",
                    LocationLevel.SameVenue => "same venue",
                    _ => null,
                },
                c.Year == YearLevel.Same ? "same year" : null,
            }.OfType<string>(),
        ];

    /// <summary>What speaks against it: "years one apart", "other venue".</summary>
    public static IReadOnlyList<string> Against(Comparison c) =>
        [
            .. new[]
            {
                c.Identifier switch
                {
                    IdentifierLevel.DifferentVersions => "DOIs of two versions",
                    IdentifierLevel.Different => "identifiers differ",
                    _ => null,
                },
                c.Title switch
                {
                    TitleLevel.Loose => "titles agree in part only",
                    TitleLevel.Different => "titles differ",
                    _ => null,
                },
                c.People switch
                {
                    PeopleLevel.Some => "few people agree",
                    PeopleLevel.None => "people differ",
                    _ => null,
                },
                c.Location switch
                {
                    LocationLevel.OtherPage => "other page or volume",
                    LocationLevel.OtherVenue => "other venue",
                    _ => null,
                },
                c.Year switch
                {
                    YearLevel.OneApart => "years one apart",
                    YearLevel.Near => "years two or three apart",
                    YearLevel.Different => "years far apart",
                    _ => null,
                },
                c.Kind switch
                {
                    KindLevel.PaperAndArticle => "conference paper and article",
                    KindLevel.Apart => "kinds that rarely are one work",
                    _ => null,
                },
            }.OfType<string>(),
        ];
}
