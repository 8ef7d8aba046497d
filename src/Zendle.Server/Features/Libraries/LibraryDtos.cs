using Zendle.Core.Holdings;
using Zendle.Server.Events;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Libraries;

/// <summary>A library of the installation, as one person sees it.</summary>
/// <param name="Label">What works are narrowed by.</param>
/// <param name="Identifier">Its identifier in the directory; empty for one added by hand.</param>
/// <param name="HasResolver">Whether it has a link resolver.</param>
/// <param name="HasProxy">Whether it has a proxy.</param>
/// <param name="HoldingsAddress">Where its holdings lie; null when a file was brought.</param>
/// <param name="Lines">Lines of its holdings.</param>
/// <param name="Unread">Lines that could not be read.</param>
/// <param name="Faults">The first of them, a sentence each.</param>
/// <param name="LoadedAt">When the holdings came; null before.</param>
/// <param name="Job">What fetches them, while it runs or when it failed.</param>
/// <param name="IsMine">Whether the person uses it.</param>
/// <param name="SignedInAt">Since when the person is signed in there; null when not.</param>
/// <param name="EndsAt">When that ends; null when the library did not say.</param>
internal sealed record LibraryDto(
    int Id,
    string Name,
    string Town,
    string Country,
    string Label,
    string Identifier,
    LibrarySignIn SignIn,
    bool HasResolver,
    bool HasProxy,
    string? HoldingsAddress,
    int Lines,
    int Unread,
    IReadOnlyList<string> Faults,
    DateTimeOffset? LoadedAt,
    JobDto? Job,
    bool IsMine,
    DateTimeOffset? SignedInAt,
    DateTimeOffset? EndsAt
);

/// <summary>The libraries of the installation.</summary>
/// <param name="Libraries">Those of the person first, in their order, then the others by name.</param>
/// <param name="HasDirectory">Whether there is a directory to choose from.</param>
internal sealed record LibrariesDto(IReadOnlyList<LibraryDto> Libraries, bool HasDirectory);

/// <summary>A library of the directory.</summary>
/// <param name="IsMine">Whether the person uses it already.</param>
internal sealed record ListedLibraryDto(string Identifier, string Name, string Town, string Country, bool IsMine);

/// <summary>What the directory has for some words.</summary>
/// <param name="Total">How many fit.</param>
/// <param name="Libraries">The first of them.</param>
internal sealed record LibraryDirectoryDto(int Total, IReadOnlyList<ListedLibraryDto> Libraries);

/// <summary>A library of the directory that a person wants to use.</summary>
internal sealed record ChooseLibraryRequest(string Identifier);

/// <summary>The libraries a person uses, the one asked first in front.</summary>
internal sealed record UsedLibrariesRequest(IReadOnlyList<int> Libraries);

/// <summary>A library added by hand.</summary>
/// <param name="HoldingsAddress">Where its holdings lie; null when a file is brought after.</param>
/// <param name="Resolver">Its link resolver; null for none.</param>
/// <param name="ProxyPrefix">What stands before an address to open it through its proxy; null for none.</param>
/// <param name="AsksPassword">Whether the proxy asks for name and password.</param>
internal sealed record NewLibraryRequest(
    string Name,
    string? Town,
    string? Country,
    string? HoldingsAddress,
    string? Resolver,
    string? ProxyPrefix,
    bool AsksPassword
);

/// <summary>Name and password for a library's proxy; used once, kept nowhere.</summary>
internal sealed record LibrarySignInRequest(string Name, string Password);

/// <summary>Where a library's own sign-in window opens.</summary>
internal sealed record LibraryWindowDto(string Address);

/// <summary>Where the window is to lead back to: the address of this page's own host.</summary>
internal sealed record LibraryWindowRequest(string Back);

/// <summary>What a library's window gave.</summary>
internal sealed record LibraryReturnRequest(string State, string Code);

/// <summary>How many works go on now that somebody signed in.</summary>
internal sealed record SignedInDto(int GoOn);

/// <summary>What the libraries of a person hold of a work.</summary>
/// <param name="IsFree">Whether anyone may read it, without a library.</param>
/// <param name="IsSold">Whether a copy is known that is sold.</param>
/// <param name="LibraryId">The library that says most; null where the person uses none.</param>
/// <param name="Library">Its name.</param>
/// <param name="Coverage">What its holdings say.</param>
/// <param name="From">Year from which it holds the title; null for no limit.</param>
/// <param name="To">Year to which; null for no limit.</param>
/// <param name="Embargo">Code of what is held back; empty for nothing.</param>
/// <param name="OpensOn">When an embargo ends; null without one.</param>
internal sealed record HeldDto(
    int WorkId,
    bool IsFree,
    bool IsSold,
    int? LibraryId,
    string? Library,
    Coverage? Coverage,
    int? From,
    int? To,
    string Embargo,
    DateOnly? OpensOn
);
