<?php

declare(strict_types=1);

namespace App\Http\Ledger;

use App\Http\Moment;
use Illuminate\Foundation\Http\FormRequest;

final class ReversalPreviewInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'entries' => 'nullable|array|list|max:500', 'entries.*' => 'integer|min:1', 'rule' => 'nullable|integer',
            'from' => ['nullable', new Moment], 'until' => ['nullable', new Moment],
        ];
    }
}
