<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { Input, Modal, Select } from 'flowbite-svelte';
    import { untrack } from 'svelte';
    import { api, ask, said } from '../../api/client';
    import { findRecords } from '../../api/records';
    import type { AnyDocument } from '../../state/document.svelte';
    import { at as valueAt, type JsonObject } from '../../state/pointer';
    import LetterFields from '../LetterFields.svelte';
    import type { Editor } from '../words';

    /* The message of a line: a kept letter, or one written here; beside it, how it reads for a real record. */
    type Props = { document: AnyDocument; editor: Editor; at: string; onclose: () => void };
    let { document: page, editor, at, onclose }: Props = $props();

    let open = $state(true);
    $effect(() => {
        if (!open) onclose();
    });
    const line = untrack(() => (page.at(at) ?? {}) as JsonObject);
    let letter = $state(String(line.letter ?? ''));
    let subject = $state(String(line.subject ?? ''));
    let body = $state(String(line.body ?? ''));
    const isText = $derived(!editor.isLong);
    const letters = createQuery(() => ({ queryKey: ['letters'], queryFn: () => ask(api.GET('/api/letters')) }));
    const fitting = $derived((letters.data ?? []).filter((candidate) => candidate.recordType === page.type));

    let search = $state('');
    let record = $state<number | null>(null);
    const records = createQuery(() => ({
        queryKey: ['offer', page.type, search],
        queryFn: () => findRecords(page.type, search),
    }));
    const shown = $derived(record ?? records.data?.[0]?.id ?? null);
    const draft = $derived<JsonObject>({
        ...line,
        letter: letter || undefined!,
        ...(letter ? {} : { subject, body }),
        onlyIf: undefined!,
    });
    const preview = createQuery(() => ({
        queryKey: ['preview', page.type, shown, JSON.stringify(draft)],
        enabled: shown !== null,
        retry: false,
        queryFn: () => ask(api.POST('/api/messages/preview', { body: { on: page.type, line: draft, record: shown ?? 0 } })),
    }));

    function done() {
        void page.edit((file) => {
            const target = valueAt(file, at) as JsonObject | undefined;
            if (!target) return;
            if (letter) {
                target.letter = letter;
                delete target.subject;
                delete target.body;
            } else {
                delete target.letter;
                target.subject = subject.trim();
                target.body = body;
            }
        });
        open = false;
    }
</script>

<Modal
    bind:open
    size="lg"
    dismissable={false}
    class="max-w-[1120px]! rounded-xl border border-edge bg-page divide-y-0 text-ink shadow-2xl"
    classes={{ body: 'p-0! overflow-hidden rounded-xl' }}
>
    <div class="grid h-[76vh] max-h-[660px] grid-cols-2 max-[700px]:h-auto max-[700px]:max-h-none max-[700px]:grid-cols-1">
        <div class="flex min-h-0 flex-col border-r border-ruled p-6">
            <h2 class="text-lg">{editor.label}</h2>
            {#if fitting.length}
                <label class="mt-3 flex items-center gap-3 text-[13px] text-ink-2">
                    Letter
                    <Select placeholder="" bind:value={letter}>
                        <option value="">written here</option>
                        {#each fitting as kept (kept.id)}<option value={kept.name}>{kept.name}</option>{/each}
                    </Select>
                </label>
            {/if}
            {#if letter}
                <p class="mt-4 text-[13.5px] text-ink-2">
                    The letter is kept in <a class="link" href="/setup/letters">Setup</a>. Every rule that sends it sends its latest
                    version.
                </p>
            {:else}
                <LetterFields type={page.type} bind:subject bind:body wantsSubject={!isText} focuses />
            {/if}
            <div class="mt-auto flex gap-2 pt-4">
                <button type="button" class="btn go" onclick={done}>Done</button>
                <button type="button" class="btn" onclick={() => (open = false)}>Cancel</button>
            </div>
        </div>
        <div class="flex min-h-0 flex-col bg-raised p-6">
            <div class="flex flex-wrap items-center gap-3 text-[13px] text-ink-2">
                <span class="shrink-0">As it reads for</span>
                <Select
                    placeholder=""
                    class="min-w-0 flex-1 basis-40"
                    aria-label="Record to preview with"
                    value={shown ?? ''}
                    onchange={(event) => (record = Number(event.currentTarget.value))}
                >
                    {#each records.data ?? [] as row (row.id)}<option value={row.id}>{row.number} {row.title}</option>{/each}
                </Select>
                <Input class="w-28! shrink-0" type="search" placeholder="Find…" aria-label="Find a record" bind:value={search} />
            </div>
            {#if preview.data}
                <div class="scroll mt-4 rounded-md border border-edge on-white p-5 text-[13.5px] shadow-sm" data-preview>
                    <p class="mini">To {preview.data.to.join(', ') || '–'}</p>
                    {#if preview.data.cc.length}<p class="mini">Copy {preview.data.cc.join(', ')}</p>{/if}
                    {#if preview.data.replyTo}<p class="mini">Answers to {preview.data.replyTo}</p>{/if}
                    {#if preview.data.subject}<h3 class="mt-2 text-[15px] font-semibold">{preview.data.subject}</h3>{/if}
                    <!-- The server has sanitised it: nothing in it runs. -->
                    <div class="letter mt-3">
                        {#if isText}{preview.data.text}{:else}{@html preview.data.html}{/if}
                    </div>
                </div>
                {#if preview.data.missing.length}
                    <p class="callout warn mt-3">
                        <b>Empty for this record:</b>
                        {preview.data.missing.join(', ')}. Nothing stands in its place.
                    </p>
                {/if}
                {#if preview.data.trouble}<p class="mini mt-2">{preview.data.trouble}</p>{/if}
            {:else if preview.isError}
                <p class="callout mt-4">{said(preview.error)}</p>
            {:else}
                <p class="mini mt-4">{shown === null ? 'There is no record to show it with yet.' : 'Reading…'}</p>
            {/if}
        </div>
    </div>
</Modal>
