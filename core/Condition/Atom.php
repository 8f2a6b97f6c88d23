<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use Closure;
use VividLedger\Schema\Path;

/**
 * A condition that has no parts, as reasoning sees it: a test of the value at one path, or a statement of which nothing is
 * known but that it holds or does not.
 */
final readonly class Atom
{
    /**
     * @param  ?Path  $path  what it looks at; null when none
     * @param  string  $free  names its truth where the value does not decide it; two atoms of one text are true together
     * @param  ?Closure(string|int|bool|null): bool  $test  null when the value alone never decides
     * @param  ?bool  $ofEmpty  its answer for an empty value, where that is certain
     * @param  list<string|int|bool>  $turns  values around which its answer turns
     * @param  bool  $isToldOfOthers  whether its answer for a text is known when all that is known of it is that it is no other
     */
    public function __construct(
        public ?Path $path,
        public string $free,
        public ?Closure $test = null,
        private ?bool $ofEmpty = null,
        public array $turns = [],
        private bool $isToldOfOthers = true,
    ) {
    }

    /** A statement about which values say nothing: it is true together with itself only. */
    public static function free(Condition $condition): self
    {
        return new self(null, $condition::class.'#'.spl_object_id($condition));
    }

    /** @return ?bool null when the value does not decide it */
    public function holds(Region $region): ?bool
    {
        if ($region->value === null && $this->ofEmpty !== null) {
            return $this->ofEmpty;
        }
        if ($this->test === null || ($region->isOtherText && ! $this->isToldOfOthers)) {
            return null;
        }

        return ($this->test)($region->value);
    }
}
