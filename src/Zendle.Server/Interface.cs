using System.Security.Cryptography;
using Microsoft.AspNetCore.StaticFiles;
using Microsoft.Extensions.FileProviders;

namespace Zendle.Server;

/// <summary>Serves the built interface: files as they are, the page itself with a fresh nonce in each reply.</summary>
internal static class Interface
{
    public static void UseInterface(this WebApplication app)
    {
        var root = app.Environment.WebRootPath;
        var index = root is null ? null : Path.Combine(root, "index.html");
        app.Use(
            async (http, next) =>
            {
                var headers = http.Response.Headers;
                headers.XContentTypeOptions = "nosniff";
                headers["Referrer-Policy"] = "no-referrer";
                headers["Cross-Origin-Opener-Policy"] = "same-origin";
                headers.ContentSecurityPolicy = Policy("");
                // What is told to one person is kept by nobody else, and not beyond their session.
                if (http.Request.Path.StartsWithSegments("/api"))
                    http.Response.OnStarting(() =>
                    {
                        headers.CacheControl = "no-store";
                        return Task.CompletedTask;
                    });
                await next();
            }
        );
        if (root is null || !Directory.Exists(root))
            return;
        var types = new FileExtensionContentTypeProvider
        {
            Mappings =
            {
                [".mjs"] = "text/javascript",
                [".bcmap"] = "application/octet-stream",
                [".pfb"] = "application/octet-stream",
                [".icc"] = "application/vnd.iccprofile",
            },
        };
        app.UseStaticFiles(
            new StaticFileOptions
            {
                FileProvider = new WithoutIndex(new PhysicalFileProvider(root)),
                ContentTypeProvider = types,
                // Names of built files carry a hash of their content.
                OnPrepareResponse = c =>
                    c.Context.Response.Headers.CacheControl = c.Context.Request.Path.StartsWithSegments("/assets")
                        ? "public, max-age=31536000, immutable"
                        : "no-cache",
            }
        );
        app.MapFallback(
            async (HttpContext http) =>
            {
                if (http.Request.Path.StartsWithSegments("/api"))
                {
                    // An endpoint that takes JSON is not found for anything else; what is wrong then is the form.
                    var isForm =
                        http.Request.Method is "POST" or "PUT" or "PATCH"
                        && http.Request.ContentLength is not (null or 0)
                        && !http.Request.HasJsonContentType();
                    http.Response.StatusCode = isForm ? 415 : 404;
                    return;
                }
                var nonce = Convert.ToBase64String(RandomNumberGenerator.GetBytes(18));
                http.Response.Headers.ContentSecurityPolicy = Policy($" 'nonce-{nonce}'");
                http.Response.Headers.CacheControl = "no-store";
                http.Response.ContentType = "text/html; charset=utf-8";
                await http.Response.WriteAsync(
                    (await File.ReadAllTextAsync(index!)).Replace("__NONCE__", nonce, StringComparison.Ordinal)
                );
            }
        );
    }

    private static string Policy(string nonce) =>
        $"default-src 'none'; script-src 'self'; style-src 'self'{nonce}; img-src 'self' data: blob:; "
        + "font-src 'self'; connect-src 'self'; worker-src 'self'; manifest-src 'self'; base-uri 'none'; "
        + "form-action 'self'; frame-ancestors 'none'";

    private sealed class WithoutIndex(IFileProvider inner) : IFileProvider
    {
        public IFileInfo GetFileInfo(string subpath) =>
            subpath.TrimStart('/').Equals("index.html", StringComparison.OrdinalIgnoreCase)
                ? new NotFoundFileInfo(subpath)
                : inner.GetFileInfo(subpath);

        public IDirectoryContents GetDirectoryContents(string subpath) => inner.GetDirectoryContents(subpath);

        public Microsoft.Extensions.Primitives.IChangeToken Watch(string filter) => inner.Watch(filter);
    }
}
