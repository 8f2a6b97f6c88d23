<?php

declare(strict_types=1);

namespace App\Http\Tasks;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Http\Records\RecordResources;
use App\Store\Access\RecordAuthorizer;
use App\Store\DomainError;
use App\Store\Sql\RecordSql;
use App\Store\Tasks\CalendarTasks;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;
use Sabre\VObject\Component\VCard;
use Sabre\VObject\Property\Unknown;
use VividLedger\Rights\Act;
use VividLedger\Schema\FieldType;

/** Files that calendar and address programs write and read: tasks as to-dos, and a record as a card. */
final class CalendarFileController extends Controller
{
    private const CARD = [FieldType::Email->value => 'EMAIL', FieldType::Phone->value => 'TEL', FieldType::Link->value => 'URL'];

    #[
        OA\Post(
            path: '/api/tasks/calendar',
            operationId: 'bringTasks',
            description: 'Brings the to-dos of a calendar file in: new ones as one’s own tasks about a record; of those that are here '
                .'already a moved date, and that they are done.',
            tags: ['tasks'],
            responses: [new Ok(CalendarTaskResource::class, list: true)],
        ),
    ]
    public function bring(CalendarTasksInput $request, CalendarTasks $calendar, RecordAuthorizer $gate): JsonResponse
    {
        $given = $request->validated();
        $me = $this->person($request);
        $tasks = $calendar->read($given['text'], $me);
        $about = null;
        if (isset($given['recordId'])) {
            $about = [$this->type($given['recordType']), (int) $given['recordId']];
            $gate->mustMay(Act::Read, ...$about);
        }
        if (($given['onlyRead'] ?? false) !== true) {
            $calendar->bring($tasks, $about, $me);
        }

        return new JsonResponse(array_map(CalendarTaskResource::of(...), $tasks));
    }

    #[
        OA\Get(
            path: '/api/records/{type}/{id}/card',
            operationId: 'card',
            description: 'A record as a card (vCard 4, RFC 6350): its name, addresses and numbers, and the record it belongs to.',
            tags: ['records'],
            responses: [new OA\Response(response: 200, description: 'A card', content: new OA\MediaType(
                mediaType: 'text/vcard', schema: new OA\Schema(type: 'string'),
            ))],
        ),
    ]
    public function card(string $type, int $id, RecordResources $resources): Response
    {
        $recordType = $this->seenType($type);
        $record = RecordSql::record($recordType, $id) ?? throw DomainError::noRecord($recordType, $id);
        // As whoever asks sees it: a hidden field is not in the type, and what they do not see has no title.
        $resource = $resources->of($recordType, [$record])[0];
        $card = new VCard(['FN' => $resource->title]);
        // A name that is an address is one (RFC 6350 §6.7.6), and an address has nothing before its commas.
        $card->add(new Unknown($card, 'UID', url("/records/{$type}/{$id}")));
        $organisation = null;
        foreach ($recordType->fields as $name => $field) {
            $shown = (string) ($resource->shown[$name] ?? '');
            if (isset(self::CARD[$field->type->value]) && $shown !== '') {
                $field->type === FieldType::Link ? $card->add(new Unknown($card, 'URL', $shown))
                    : $card->add(self::CARD[$field->type->value], $shown);
            } elseif ($field->type === FieldType::Reference && ! $field->system) {
                $organisation ??= $shown === '' ? null : $shown;
            }
        }
        if ($organisation !== null) {
            $card->add('ORG', [$organisation]);
        }

        return response($card->convert(VCard::VCARD40)->serialize(), 200, [
            'Content-Type' => 'text/vcard; charset=utf-8',
            'Content-Disposition' => "attachment; filename=\"{$resource->number}.vcf\"",
        ]);
    }
}
