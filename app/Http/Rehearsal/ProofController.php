<?php

declare(strict_types=1);

namespace App\Http\Rehearsal;

use App\Evidence\Rehearsal\Proofs;
use App\Evidence\Rules\WrittenRules;
use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Http\Rules\RuleFileInput;
use App\Models\Rules\Proof;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;
use VividLedger\Record\Value;
use VividLedger\Rehearse\LineDifference;

/** Proofs of rules: kept, played at every edit, mended or accepted. */
final class ProofController extends Controller
{
    public function __construct(private readonly Proofs $proofs, private readonly WrittenRules $written)
    {
    }

    #[
        OA\Get(
            path: '/api/rules/{id}/proofs',
            operationId: 'proofs',
            description: 'The proofs of a rule, and how each came out.',
            tags: ['evidence'],
            responses: [new Ok(ProofResource::class, list: true)],
        ),
    ]
    public function index(int $id): JsonResponse
    {
        return new JsonResponse($this->proofs->of($id)->map(static fn (Proof $proof): ProofResource => new ProofResource(
            id: $proof->id, rule: $proof->rule_id, ruleName: '', name: $proof->name, holds: $proof->holds,
            checked: $proof->checked_stand !== '', lines: self::lines($proof->expected, $proof->actual ?? $proof->expected),
            keptBy: $proof->keeper->name, keptAt: Value::instantText($proof->kept_at), acceptedBy: $proof->accepter?->name,
            acceptedAt: $proof->accepted_at === null ? null : Value::instantText($proof->accepted_at),
        ))->all());
    }

    #[
        OA\Post(
            path: '/api/rules/{id}/proofs',
            operationId: 'keepProof',
            description: 'Keeps a rehearsal as a proof: its record, what it looks at, and what it comes to.',
            tags: ['evidence'],
            responses: [new Ok(ProofResource::class, list: true, status: 201)],
        ),
    ]
    public function store(int $id, ProofInput $request): JsonResponse
    {
        $given = $request->validated();
        $this->proofs->keep(
            $id,
            $this->written->finished($given['file'], $id),
            (string) $given['name'],
            array_filter($given, static fn (mixed $value): bool => $value !== null),
            $this->person($request)->id,
        );

        return new JsonResponse($this->index($id)->getData(), 201);
    }

    #[
        OA\Post(
            path: '/api/rules/{id}/proofs/try',
            operationId: 'tryProofs',
            description: 'Plays the proofs with the rule as it is being written: its own, and those of other rules that it would break.',
            tags: ['evidence'],
            responses: [new Ok(TriedProof::class, list: true)],
        ),
    ]
    public function try(int $id, RuleFileInput $request): JsonResponse
    {
        $given = $request->validated();

        return new JsonResponse(array_map(static fn (array $tried): TriedProof => new TriedProof(
            id: $tried['id'], rule: $tried['rule'], ruleName: $tried['ruleName'], name: $tried['name'],
            holds: $tried['expected'] === $tried['actual'],
            lines: self::lines(
                $tried['expected'],
                $tried['actual'],
            ),
        ), $this->proofs->tried($this->written->finished($given['file'], $id))));
    }

    #[
        OA\Post(
            path: '/api/rules/{id}/proofs/propose',
            operationId: 'proposeProofs',
            description: 'Proposes the cases at the boundaries of a rule, each with what it comes to by itself.',
            tags: ['evidence'],
            responses: [new Ok(ProposedProof::class, list: true)],
        ),
    ]
    public function propose(int $id, RuleFileInput $request): JsonResponse
    {
        $given = $request->validated();
        $cases = $this->proofs->proposed($this->written->finished($given['file'], $id), $this->person($request)->id);

        return new JsonResponse(array_map(
            static fn (array $case): ProposedProof => new ProposedProof($case['name'], $case['script'], $case['outline'], $case['fires']),
            $cases,
        ));
    }

    #[
        OA\Post(
            path: '/api/proofs/{id}/accept',
            operationId: 'acceptProof',
            description: 'What the proof comes to now, with a rule as it is being written if one is given, is what is expected from now '
                .'on.',
            tags: ['evidence'],
            responses: [new Ok],
        ),
    ]
    public function accept(int $id, ProofAcceptInput $request): Response
    {
        $given = $request->validated();
        $this->proofs->accept(
            $id,
            isset($given['file'], $given['rule']) ? $this->written->finished($given['file'], (int) $given['rule']) : null,
            $this->person($request)->id,
        );

        return response()->noContent();
    }

    #[
        OA\Delete(
            path: '/api/proofs/{id}',
            operationId: 'dropProof',
            description: 'Removes a proof.',
            tags: ['evidence'],
            responses: [new Ok],
        ),
    ]
    public function destroy(int $id): Response
    {
        $this->proofs->drop($id);

        return response()->noContent();
    }

    /**
     * @param  list<string>  $expected
     * @param  list<string>  $actual
     * @return list<ProofLine>
     */
    private static function lines(array $expected, array $actual): array
    {
        return array_map(
            static fn (array $line): ProofLine => new ProofLine($line[0], $line[1]),
            LineDifference::between($expected, $actual),
        );
    }
}
