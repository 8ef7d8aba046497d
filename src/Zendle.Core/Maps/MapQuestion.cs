namespace Zendle.Core.Maps;

/// <summary>What the lanes of a map are.</summary>
public enum LaneField
{
    /// <summary>Tags of the review.</summary>
    Tag,

    /// <summary>Stages in the review.</summary>
    Stage,

    /// <summary>Topics that the map finds: works that cite each other and the same works, with the same keywords.</summary>
    Topic,

    /// <summary>Senses of the words in view: the same, in larger groups.</summary>
    Sense,

    /// <summary>The seeds that works are tied to.</summary>
    Seed,

    /// <summary>Subject categories.</summary>
    Subject,

    /// <summary>Journals, books and proceedings.</summary>
    Venue,

    /// <summary>Authors and editors.</summary>
    Person,

    /// <summary>Databases that hold a record.</summary>
    Database,

    /// <summary>Countries they are about.</summary>
    Country,

    /// <summary>Kinds of document.</summary>
    Type,

    /// <summary>Methods, study designs among them, that they name in title, keywords or abstract.</summary>
    Method,
}

/// <summary>What runs along a map.</summary>
public enum MapAlong
{
    /// <summary>Year of publication.</summary>
    Year,

    /// <summary>Rank by links inside the set, the most linked first.</summary>
    Rank,

    /// <summary>The day on which a search or trail of the review first found it.</summary>
    Found,
}

/// <summary>What the size of a mark says.</summary>
public enum MapSize
{
    /// <summary>Works that cite it, joined over databases.</summary>
    Cited,

    /// <summary>The same, for each year since it came out.</summary>
    CitedPerYear,

    /// <summary>What one database counts itself.</summary>
    DatabaseCited,

    /// <summary>Works of the map that it cites or that cite it.</summary>
    Links,

    /// <summary>Seeds it is tied to.</summary>
    Seeds,

    /// <summary>Pages, where a record says the first and the last one.</summary>
    Pages,

    /// <summary>Nothing: all marks are alike.</summary>
    Same,
}
