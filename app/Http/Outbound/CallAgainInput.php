<?php

declare(strict_types=1);

namespace App\Http\Outbound;

use Illuminate\Foundation\Http\FormRequest;

final class CallAgainInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['payload' => 'sometimes|nullable|string|max:200000'];
    }
}
