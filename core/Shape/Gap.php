<?php

declare(strict_types=1);

namespace VividLedger\Shape;

/** What stands at a place where something is still to be chosen, and what is told about it. */
final readonly class Gap
{
    /**
     * @param  string  $text  in the sentence: "choose a field"
     * @param  string  $message  for the list of problems
     * @param  string  $more  where nothing need stand: "+ notes"; empty for nothing to add
     */
    public function __construct(
        public string $text,
        public string $message,
        public string $more = '',
    ) {
    }
}
