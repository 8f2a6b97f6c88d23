<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use Closure;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Typed;
use VividLedger\Shape\Worded;
use VividLedger\Shape\WordRole;

/** Something that can be said besides: "every year". Only what is said stands in the file. */
final readonly class Also implements Worded
{
    /**
     * @param  string  $said  when it is so
     * @param  string  $otherwise  as it is offered instead
     * @param  ?Closure(Filled): bool  $when  whether it makes sense, by what stood before it; null for always
     */
    public function __construct(private string $said, private string $otherwise, private ?Closure $when = null)
    {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return $json === true ? $this->said : null;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $end = $typed->words($at, $this->said);

        return $end === null ? [] : [new Parsed(true, $end)];
    }

    public function read(Context $context, Node $node, Filled $around): bool
    {
        if ($node->raw === true) {
            $context->choice($this->said, WordRole::Value, $node->at, $this->offers(...));
        }

        return $node->raw === true;
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
        if ($this->when === null || ($this->when)($around)) {
            $context->more("+ {$this->said}", $node->at, Editor::choose('Choose', $this->offers(...)));
        }
    }

    public function schema(): array
    {
        return ['type' => 'boolean'];
    }

    /** @return list<Offer> */
    private function offers(): array
    {
        return [new Offer($this->said, true), new Offer($this->otherwise, null)];
    }
}
