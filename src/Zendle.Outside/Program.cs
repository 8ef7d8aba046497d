using Zendle.Outside;
using Zendle.Outside.Files;
using Zendle.Outside.World;

if (args is ["world", ..])
    return WorldFolder.Run(args[1..], Console.Out);
await OutsideApplication.Build(args).RunAsync();
return 0;
