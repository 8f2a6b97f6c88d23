<?php

declare(strict_types=1);

namespace Tests\Core;

use PhpParser\Node;
use PhpParser\Node\Expr\New_;
use PhpParser\Node\Expr\StaticCall;
use PhpParser\NodeFinder;
use PhpParser\NodeTraverser;
use PhpParser\NodeVisitor\NameResolver;
use PhpParser\ParserFactory;
use PHPUnit\Framework\TestCase;

/** Nobody counts to nine to find out what an argument is: what is handed more than five of them is told which is which. */
final class NamedArgumentsTest extends TestCase
{
    private const MOST = 5;

    public function test_more_than_five_arguments_have_names(): void
    {
        $parser = (new ParserFactory)->createForHostVersion();
        [$unnamed, $looked] = [[], 0];
        foreach (['core', 'app'] as $folder) {
            $files = new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator(dirname(__DIR__, 2)."/{$folder}"));
            foreach ($files as $file) {
                if (! $file instanceof \SplFileInfo || $file->getExtension() !== 'php') {
                    continue;
                }
                $code = (string) file_get_contents($file->getPathname());
                $tree = (new NodeTraverser(new NameResolver))->traverse((array) $parser->parse($code));
                foreach ((new NodeFinder)->find($tree, self::isOurs(...)) as $call) {
                    $looked++;
                    if (($call instanceof New_ || $call instanceof StaticCall) && self::positional($call) > self::MOST) {
                        $unnamed[] = "{$file->getFilename()}:{$call->getStartLine()}";
                    }
                }
            }
        }

        self::assertGreaterThan(1_000, $looked);
        self::assertSame([], $unnamed);
    }

    private static function isOurs(Node $node): bool
    {
        return ($node instanceof New_ || $node instanceof StaticCall) && $node->class instanceof Node\Name
            && preg_match('/^(App|VividLedger)\\\\|^(self|static)$/', $node->class->toString()) === 1;
    }

    private static function positional(New_|StaticCall $call): int
    {
        $count = 0;
        foreach ($call->args as $argument) {
            $count += $argument instanceof Node\Arg && $argument->name === null && ! $argument->unpack ? 1 : 0;
        }

        return $count;
    }
}
