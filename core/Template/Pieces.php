<?php

declare(strict_types=1);

namespace VividLedger\Template;

use VividLedger\Schema\Field;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;

/** What a text of a record type can merge. A new kind is a new file and one line here. */
final class Pieces
{
    /** @return ?Piece null when the type has nothing of that name; a field goes before what only sounds like one */
    public static function named(Schema $schema, RecordType $type, string $name): ?Piece
    {
        $path = $schema->path($type, $name);
        if ($path !== null) {
            return new FieldPiece($path);
        }
        foreach (self::besides($schema, $type) as $piece) {
            if ($piece->name() === $name) {
                return $piece;
            }
        }

        return null;
    }

    /** @return list<Piece> all but the fields */
    public static function besides(Schema $schema, RecordType $type): array
    {
        $old = array_map(static fn (Field $field): Piece => new OldValuePiece($field), $type->ownFields());
        $signOff = array_map(static fn (SignOffWord $word): Piece => new SignOffPiece($word), SignOffWord::cases());

        return [
            new NumberPiece, new LinkPiece, new ChangesPiece($schema), new ChangedByPiece, new ChangedAtPiece, ...$old, ...$signOff,
            ...SlipPiece::all(),
        ];
    }
}
