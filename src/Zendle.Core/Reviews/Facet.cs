namespace Zendle.Core.Reviews;

/// <summary>The fields a set can be narrowed by.</summary>
public enum Facet
{
    /// <summary>Year of publication.</summary>
    Year,

    /// <summary>Kind of document.</summary>
    Type,

    /// <summary>Language of the text.</summary>
    Language,

    /// <summary>Journal, book or proceedings.</summary>
    Venue,

    /// <summary>Subject category.</summary>
    Subject,

    /// <summary>Author or editor.</summary>
    Person,

    /// <summary>Database that holds a record.</summary>
    Database,

    /// <summary>How a text can be had.</summary>
    Text,

    /// <summary>Stage in the review.</summary>
    Stage,

    /// <summary>Tag in the review.</summary>
    Tag,

    /// <summary>Where its people worked, as printed.</summary>
    Affiliation,

    /// <summary>Country it is about.</summary>
    Country,

    /// <summary>Who paid for it.</summary>
    Funder,

    /// <summary>Best quartile of its journal in any subject category, counted in the corpus.</summary>
    Quartile,

    /// <summary>Whether anyone may read it, and in which version.</summary>
    OpenAccess,

    /// <summary>Keyword of the authors or the database.</summary>
    Keyword,

    /// <summary>Library whose holdings cover it, or may.</summary>
    Library,
}

/// <summary>What the fields are called in sentences.</summary>
public static class Facets
{
    /// <summary>The name of a field, in lower case.</summary>
    public static string Name(Facet facet) =>
        facet switch
        {
            Facet.Text => "full text",
            Facet.OpenAccess => "open access",
            _ => facet.ToString().ToLowerInvariant(),
        };
}
