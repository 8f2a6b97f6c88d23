<?php

declare(strict_types=1);

namespace Tests\Core\Support;

use PhpParser\Node;
use PhpParser\Node\Expr;
use PhpParser\NodeTraverser;
use PhpParser\NodeVisitor;
use PhpParser\NodeVisitorAbstract;
use PhpParser\ParserFactory;

/** Finds what looks like a sentence to somebody, in a file, and is not said by Words; what exceptions tell programmers is left out. */
final class Sentences extends NodeVisitorAbstract
{
    private const SENTENCE = '/^[A-Z#‘“].*[a-z]{2,} [a-z]{2,}.*[.:?]$/su';

    /** @var list<int> */
    private array $lines = [];

    /** @return list<int> the lines where they stand */
    public static function outside(string $file): array
    {
        $self = new self;
        $traverser = new NodeTraverser($self);
        $traverser->traverse((array) (new ParserFactory)->createForHostVersion()->parse((string) file_get_contents($file)));

        return $self->lines;
    }

    public function enterNode(Node $node): ?int
    {
        if (self::isTold($node)) {
            return NodeVisitor::DONT_TRAVERSE_CHILDREN;
        }
        if (preg_match(self::SENTENCE, self::text($node)) === 1) {
            $this->lines[] = $node->getStartLine();
        }

        return null;
    }

    private static function isTold(Node $node): bool
    {
        $class = $node instanceof Expr\StaticCall || $node instanceof Expr\New_ ? $node->class : null;
        $name = $class instanceof Node\Name ? $class->getLast() : '';

        return match (true) {
            $node instanceof Node\AttributeGroup => true,
            $node instanceof Expr\StaticCall => $name === 'Words',
            // A gap of a shape says its literals when it is told.
            $node instanceof Expr\New_ => $name === 'Gap'
                || preg_match('/(Logic|Runtime|OutOfBounds|InvalidArgument)Exception$/', $name) === 1,
            default => false,
        };
    }

    /** A literal, with a # for each part that is filled in. */
    private static function text(Node $node): string
    {
        return match (true) {
            $node instanceof Node\Scalar\String_ => $node->value,
            $node instanceof Node\Scalar\InterpolatedString => implode('', array_map(
                static fn (Node $part): string => $part instanceof Node\InterpolatedStringPart ? $part->value : '#', $node->parts,
            )),
            $node instanceof Expr\BinaryOp\Concat => self::part($node->left).self::part($node->right),
            default => '',
        };
    }

    private static function part(Node $node): string
    {
        $isText = $node instanceof Node\Scalar || $node instanceof Expr\BinaryOp\Concat;

        return $isText ? self::text($node) : '#';
    }
}
