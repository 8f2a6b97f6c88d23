<script lang="ts">
    import { Bold, Italic, Link, List, ListOrdered } from '@lucide/svelte';
    import { Editor } from '@tiptap/core';
    import StarterKit from '@tiptap/starter-kit';
    import { onMount } from 'svelte';
    import Choose from './Choose.svelte';
    import Floating from './Floating.svelte';
    import { MergeField } from './mergeField';
    import { mergeOptions } from './offers';

    /* Formatted text with merge fields as chips, edited as it reads. */
    type Props = { type: string; html: string; plain?: boolean; problem?: string };
    let { type, html = $bindable(), plain = false, problem }: Props = $props();
    let element = $state<HTMLDivElement>();
    let editor = $state.raw<Editor | null>(null);
    let shown = $state(0);
    let merging = $state<HTMLElement | null>(null);
    const options = $derived(mergeOptions(type));
    const label = (path: string) => options.find((option) => option.key === path)?.label ?? path;

    onMount(() => {
        const made = new Editor({
            element: element!,
            extensions: [
                StarterKit.configure({
                    codeBlock: false,
                    code: false,
                    strike: false,
                    horizontalRule: false,
                    heading: { levels: [2, 3] },
                    link: { openOnClick: false },
                }),
                MergeField.configure({ label }),
            ],
            content: html,
            editorProps: {
                attributes: { 'aria-label': plain ? 'Text' : 'Message', role: 'textbox', 'aria-multiline': 'true', class: 'letter' },
            },
            onUpdate: () => (html = made.isEmpty ? '' : made.getHTML()),
            onTransaction: () => shown++,
        });
        editor = made;
        return () => made.destroy();
    });

    function merge(path: string | undefined) {
        merging = null;
        if (path)
            editor
                ?.chain()
                .focus()
                .insertContent([
                    { type: 'mergeField', attrs: { path } },
                    { type: 'text', text: ' ' },
                ])
                .run();
    }

    function link() {
        const href = prompt('Address of the link', String(editor?.getAttributes('link').href ?? 'https://'));
        if (href === null) return;
        if (href === '' || href === 'https://') editor?.chain().focus().unsetLink().run();
        else editor?.chain().focus().setLink({ href }).run();
    }

    const on = (name: string) => shown >= 0 && (editor?.isActive(name) ?? false);
</script>

<div class="mt-3 flex min-h-0 flex-1 flex-col">
    <div class="flex items-center gap-1 pb-1">
        {#if !plain}
            <button
                type="button"
                class="icon"
                title="Bold (Ctrl B)"
                aria-label="Bold"
                aria-pressed={on('bold')}
                onclick={() => editor?.chain().focus().toggleBold().run()}><Bold size={14} /></button
            >
            <button
                type="button"
                class="icon"
                title="Italic (Ctrl I)"
                aria-label="Italic"
                aria-pressed={on('italic')}
                onclick={() => editor?.chain().focus().toggleItalic().run()}><Italic size={14} /></button
            >
            <button
                type="button"
                class="icon"
                title="List"
                aria-label="List"
                aria-pressed={on('bulletList')}
                onclick={() => editor?.chain().focus().toggleBulletList().run()}><List size={14} /></button
            >
            <button
                type="button"
                class="icon"
                title="Numbered list"
                aria-label="Numbered list"
                aria-pressed={on('orderedList')}
                onclick={() => editor?.chain().focus().toggleOrderedList().run()}><ListOrdered size={14} /></button
            >
            <button type="button" class="icon" title="Link" aria-label="Link" aria-pressed={on('link')} onclick={link}
                ><Link size={14} /></button
            >
        {/if}
        <button type="button" class="btn quiet ml-auto" onclick={(event) => (merging = merging ? null : event.currentTarget)}
            >+ field</button
        >
    </div>
    <div class="boxed scroll min-h-32 flex-1 py-2!" class:bad={problem} bind:this={element}></div>
    {#if problem}<p class="note-wrong">{problem}</p>{/if}
</div>

{#if merging}
    <Floating anchor={merging} label="Merge a field" onclose={() => (merging = null)}>
        <Choose title="Merge" {options} onchoose={([path]) => merge(path)} onclose={() => (merging = null)} />
    </Floating>
{/if}
