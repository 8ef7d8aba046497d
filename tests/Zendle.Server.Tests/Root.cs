namespace Zendle.Server.Tests;

/// <summary>The folder of the whole project, found from where the tests run.</summary>
internal static class Root
{
    public static string Folder { get; } = Find();

    private static string Find()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(folder.FullName, "Zendle.slnx")))
            folder = folder.Parent ?? throw new InvalidOperationException("The project's folder was not found.");
        return folder.FullName;
    }
}
