using Zendle.Core.People;
using Zendle.Core.Records;

namespace Zendle.Core.Tests.People;

/// <summary>A name is found in every name that can be the same, however either is written.</summary>
public sealed class NameQueryTests
{
    private static bool Finds(string typed, string family, string given) =>
        NameQuery.Of(typed) is { } query && NameForms.Of(new PersonName(family, given)).Any(f => query.Finds(f));

    [Theory]
    [InlineData("Iwasfield, K")]
    [InlineData("Iwasfield, Kwame")]
    [InlineData("Iwasfield, Kwame B.")]
    [InlineData("Iwasfield, K. B.")]
    [InlineData("Kwame Iwasfield")]
    [InlineData("K Iwasfield")]
    [InlineData("K. Iwasfield")]
    [InlineData("K.B. Iwasfield")]
    [InlineData("KB Iwasfield")]
    [InlineData("Iwasfield KB")]
    [InlineData("Iwasfield K")]
    [InlineData("Iwasfield Kwame")]
    [InlineData("kwame b iwasfield")]
    [InlineData("IWASFIELD, KWAME")]
    [InlineData("Iwas*, K")]
    [InlineData("Kw* Iwasfield")]
    [InlineData("Kwame Iwasf?eld")]
    [InlineData("Iwasfield, *")]
    [InlineData("? Iwasfield")]
    public void A_name_is_found_in_any_order_and_degree_of_fullness(string typed)
    {
        Assert.True(Finds(typed, "Iwasfield", "Kwame B."));
        Assert.True(Finds(typed, "Iwasfield", "K. B."));
        Assert.True(Finds(typed, "Iwasfield", "K."));
        Assert.True(Finds(typed, "Iwasfield", "KB"));
    }

    [Theory]
    [InlineData("Iwasfield, K", "Iwasfield", "Maria")]
    [InlineData("Iwasfield, Kwame", "Iwasfield", "Karl")]
    [InlineData("Kwame Iwasfield", "Iwasfield", "Karl")]
    [InlineData("Iwasfield, Kwame B.", "Iwasfield", "Kwame C.")]
    [InlineData("Iwasfield, K", "Kwame", "Iwas")]
    [InlineData("Kwame Iwasfield", "Iwasfielder", "Kwame")]
    [InlineData("Kwame Iwasfield", "Iwasfield", "")]
    [InlineData("Kw* Iwasfield", "Iwasfield", "Karl")]
    [InlineData("Berg, A", "Bergman", "Anna")]
    [InlineData("Iwasfield, Kwame C.", "Iwasfield", "KB")]
    public void A_name_that_cannot_be_the_same_is_not_found(string typed, string family, string given) =>
        Assert.False(Finds(typed, family, given));

    [Theory]
    [InlineData("Berg, Anna", "van der Berg", "Anna")]
    [InlineData("van der Berg, Anna", "Berg", "Anna")]
    [InlineData("Anna van der Berg", "van der Berg", "A.")]
    [InlineData("van der Berg A", "Van der Berg", "Anna")]
    [InlineData("Östlund, Nils", "Ostlund", "N.")]
    [InlineData("Ostlund, Nils", "Östlund", "Nils")]
    [InlineData("Oestlund, Nils", "Östlund", "Nils")]
    [InlineData("Östlund, Nils", "Oestlund", "Nils")]
    [InlineData("Søren Kvist", "Kvist", "Soren")]
    [InlineData("Ostberg-Lin, Mei", "Ostberg-Lin", "M")]
    [InlineData("Ostberg Lin, Mei", "Ostberg-Lin", "M")]
    [InlineData("Ostberg, Mei", "Ostberg-Lin", "Mei")]
    [InlineData("Lin, Mei", "Ostberg-Lin", "Mei")]
    [InlineData("Jean-Luc Ogudorf", "Ogudorf", "J.-L.")]
    [InlineData("J-L Ogudorf", "Ogudorf", "Jean-Luc")]
    [InlineData("Ogudorf JL", "Ogudorf", "Jean-Luc")]
    public void Particles_hyphens_and_diacritics_make_no_difference(string typed, string family, string given) =>
        Assert.True(Finds(typed, family, given));

    [Theory]
    [InlineData("Iwasfield")]
    [InlineData("K")]
    [InlineData("")]
    [InlineData(", ,")]
    [InlineData("K, B")]
    [InlineData("1, 2")]
    public void A_word_alone_and_initials_alone_are_no_name(string typed) => Assert.Null(NameQuery.Of(typed));
}
