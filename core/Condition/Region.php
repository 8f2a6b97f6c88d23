<?php

declare(strict_types=1);

namespace VividLedger\Condition;

/** Values of a field that no condition at hand tells apart, with one of them that stands for all. */
final readonly class Region
{
    /** @param  bool  $isOtherText  whether it stands for every text that is named nowhere */
    public function __construct(
        public string|int|bool|null $value,
        public bool $isOtherText = false,
    ) {
    }
}
