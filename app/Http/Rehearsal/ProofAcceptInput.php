<?php

declare(strict_types=1);

namespace App\Http\Rehearsal;

use Illuminate\Foundation\Http\FormRequest;

final class ProofAcceptInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['file' => 'nullable|array', 'rule' => 'nullable|integer'];
    }
}
