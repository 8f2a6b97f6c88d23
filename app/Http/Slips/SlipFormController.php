<?php

declare(strict_types=1);

namespace App\Http\Slips;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Models\Columns;
use App\Models\Records\StoredRecord;
use App\Models\Slips\SlipForm;
use App\Models\Slips\SlipFormVersion;
use App\Store\Access\AccessScope;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\Library\KeptStore;
use App\Store\People\PeopleStore;
use App\Store\Records\PaperFacts;
use App\Store\Setup\Company;
use App\Store\Slips\SlipLines;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;
use VividLedger\Facts\View;
use VividLedger\Record\Display;
use VividLedger\Record\Value;
use VividLedger\Rule\Letter\Letter;
use VividLedger\Rule\Slip\SlipSlot;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Part;
use VividLedger\Slip\QuestionsSlot;
use VividLedger\Template\RichText;
use VividLedger\Words\Words;

/** Reply slips that are kept in Setup, in versions, and sent by rules under their names. */
final class SlipFormController extends Controller
{
    public function __construct(
        private readonly KeptStore $kept,
        private readonly SchemaStore $schemas,
        private readonly PeopleStore $names,
        private readonly AccessScope $inSight,
        private readonly Company $company,
        private readonly HouseClock $clock,
    ) {
    }

    #[OA\Get(path: '/api/slip-forms', operationId: 'slipForms', description: 'The reply slips that are kept under a name.',
        tags: ['slips'], responses: [new Ok(SlipFormResource::class, list: true)])]
    public function index(): JsonResponse
    {
        return new JsonResponse($this->listed(null));
    }

    #[OA\Post(path: '/api/slip-forms', operationId: 'keepSlipForm', description: 'Keeps a reply slip under a name.', tags: ['slips'],
        responses: [new Ok(SlipFormResource::class, status: 201)])]
    public function store(SlipFormInput $request): JsonResponse
    {
        $given = $request->validated();
        $id = $this->kept->keepSlip(
            $this->type($given['recordType'] ?? ''), null, null, (string) $given['name'], (string) $given['subject'],
            (string) $given['body'], $given['asks'], $this->person($request)->id,
        );

        return new JsonResponse($this->listed($id)[0], 201);
    }

    #[OA\Put(path: '/api/slip-forms/{id}', operationId: 'changeSlipForm', description: 'Keeps the next version; what was sent stays as '
        .'it was.', tags: ['slips'], responses: [new Ok(SlipFormResource::class)])]
    public function update(int $id, SlipFormInput $request): SlipFormResource
    {
        $given = $request->validated();
        $this->kept->keepSlip(
            $this->type($this->form($id)->record_type), $id, self::number($given, 'version'), (string) $given['name'],
            (string) $given['subject'], (string) $given['body'], $given['asks'], $this->person($request)->id,
        );

        return $this->listed($id)[0];
    }

    #[OA\Delete(path: '/api/slip-forms/{id}', operationId: 'dropSlipForm', description: 'Removes a reply slip no rule uses.',
        tags: ['slips'], responses: [new Ok])]
    public function destroy(int $id): Response
    {
        $this->kept->dropSlip($id);

        return response()->noContent();
    }

    #[OA\Get(path: '/api/slip-forms/{id}/versions', operationId: 'slipFormVersions', description: 'A kept slip as it read over time, the '
        .'latest first.', tags: ['slips'], responses: [new Ok(SlipFormVersionResource::class, list: true)])]
    public function versions(int $id): JsonResponse
    {
        $form = $this->form($id);
        $context = $this->kept->context($this->type($form->record_type));

        return new JsonResponse($form->versions()->with('author')->latest('number')->get()->map(
            static fn (SlipFormVersion $version): SlipFormVersionResource => new SlipFormVersionResource(
                $version->number, $version->subject, $context->said(new QuestionsSlot, $version->asks), Value::instantText($version->at),
                $version->author->name,
            ),
        )->all());
    }

    #[OA\Post(path: '/api/slip-forms/preview', operationId: 'previewSlip', description: 'The page as it would look, with the values of '
        .'the latest record.', tags: ['slips'], responses: [new Ok(SlipPreview::class)])]
    public function preview(SlipPreviewInput $request, AnswerSlipPage $page, SlipLines $lines): SlipPreview
    {
        $given = $request->validated();
        $type = $this->type($given['recordType']);
        $row = StoredRecord::rowsOf($type)->orderByDesc('id')->first();
        $record = $row === null ? null : Columns::record($type, $row);
        $context = $this->kept->context($type);
        $subject = new Node($given['subject'] ?? '', '/subject');
        $letter = Letter::read($context, $subject, new Node($given['body'] ?? '', '/body'), true);
        [$title, $html] = [(string) $given['subject'], RichText::clean((string) $given['body'])];
        if ($record !== null && $letter !== null) {
            $facts = new PaperFacts($this->schemas, $this->clock->now(), $this->company->zone());
            $view = new View($record, $facts);
            $display = Display::spoken($this->names, $this->company->zone());
            $title = $letter->subject($view, $display, $type->numberOf($record->id));
            $html = $letter->html($view, $display, $type->numberOf($record->id));
        }

        return new SlipPreview(
            $page->preview($title === ''
                ? Words::say('No subject yet')
                : $title, $html, $lines->sound($type->name, $given['asks']))->render(),
            $record === null ? null : $type->numberOf($record->id),
        );
    }

    private function form(int $id): SlipForm
    {
        return SlipForm::query()->find($id) ?? throw DomainError::missing(Words::say('There is no such slip.'));
    }

    /** @return list<SlipFormResource> by name */
    private function listed(?int $only): array
    {
        $users = $this->kept->users(SlipSlot::KEY);
        $forms = $this->inSight->ofTypes(SlipForm::query())->with('currentVersion')->orderBy('name')
            ->when($only !== null, static fn (Builder $forms): Builder => $forms->whereKey($only));

        $contexts = [];

        return array_values($forms->get()->map(function (SlipForm $form) use ($users, &$contexts): SlipFormResource {
            $version = $form->currentVersion;
            // What is looked up for one is known for all of its type.
            $context = $contexts[$form->record_type] ??= $this->kept->context($this->schemas->schema()->types[$form->record_type]);
            $problems = count($context->sheet->problems);
            $context->row(Part::Line, new Node($version->asks, '/asks'));
            (new QuestionsSlot)->read($context, new Node($version->asks, '/asks'), new Filled);

            return new SlipFormResource(
                id: $form->id, name: $form->name, recordType: $form->record_type, version: $form->version, subject: $version->subject,
                body: $version->body, asks: $version->asks, said: $context->said(new QuestionsSlot, $version->asks),
                problem: $context->sheet->problems[$problems]->message ?? null, rules: array_values($users[$form->name] ?? []),
            );
        })->all());
    }
}
