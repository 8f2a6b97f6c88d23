<?php

declare(strict_types=1);

namespace App\Http\Outbound;

use Illuminate\Foundation\Http\FormRequest;

final class MendInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['recordId' => 'required|integer|min:1', 'way' => 'required|in:ours,theirs,forget'];
    }
}
