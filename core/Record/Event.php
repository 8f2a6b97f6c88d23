<?php

declare(strict_types=1);

namespace VividLedger\Record;

/** Something that happened to a record and changed none of its fields: a comment, a file, a task done, a rule run by hand. */
final readonly class Event
{
    /**
     * @param  string  $key  names this one event among all of its record, such as "comment:17"; ASCII, at most 60 characters
     * @param  string  $text  the comment, the name of the file, the title of the task
     * @param  ?int  $ruleId  the one rule that was run by hand
     * @param  list<string>  $tells  what the text shows, each a type, the id of a record, and a field of it
     * @param  string  $from  who wrote a reply, as its letter names them: "Kim Noor <kim@noor.example>"; the name of the hook
     */
    public function __construct(
        public EventKind $kind,
        public string $key,
        public string $text = '',
        public ?int $ruleId = null,
        public string $from = '',
        public array $tells = [],
    ) {
    }
}
