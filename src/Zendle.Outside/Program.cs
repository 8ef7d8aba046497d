using Zendle.Outside;
using Zendle.Outside.Files;

if (args is ["world", ..])
    return WorldFolder.Run(args[1..], Console.Out);
await OutsideApplication.Build(args).RunAsync();
return 0;
