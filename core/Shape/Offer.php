<?php

declare(strict_types=1);

namespace VividLedger\Shape;

/** Something a word can become: how it reads, and what then stands in the rule file. */
final readonly class Offer
{
    /**
     * @param  mixed  $value  JSON to put at the place
     * @param  bool  $merge  the value's members join the object that stands there
     * @param  string  $group  the heading it is listed under
     * @param  ?string  $at  the place it is put; null for the one that was asked about
     * @param  ?bool  $isChosen  whether it is what stands there; null where its value tells
     * @param  array<string, mixed>  $also  what is put at other places besides
     */
    public function __construct(
        public string $label,
        public mixed $value,
        public string $group = '',
        public string $hint = '',
        public bool $merge = false,
        public ?string $at = null,
        public ?bool $isChosen = null,
        public array $also = [],
    ) {
    }
}
