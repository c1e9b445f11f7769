/** @jest-environment node */
import iconv from 'iconv-lite'
import { encodingOf } from './encoding'

const LISTS: readonly (readonly [string, string, string])[] = [
  ['Polish', 'windows-1250', 'Łucja Wąsik,Grażyna Śliwa,Zbigniew Żółw,Paweł Gołąb'],
  ['Czech', 'windows-1250', 'Jiří Dvořák,Štěpán Kučera,Zdeněk Růžička,Tomáš Říha'],
  ['Hungarian', 'windows-1250', 'Erzsébet Szőke,György Fűzfa,Árpád Tóth'],
  ['Polish by ISO', 'iso-8859-2', 'Łucja Wąsik,Grażyna Śliwa,Zbigniew Żółw,Paweł Gołąb'],
  ['Lithuanian', 'windows-1257', 'Žydrūnas Šarūnas,Eglė Žvirblytė,Mindaugas Kęstutis'],
  ['Latvian', 'windows-1257', 'Jānis Bērziņš,Ģirts Kļaviņš,Anda Ķirse'],
  ['Norwegian', 'windows-1252', 'Bjørn Ås,Kjærsti Øvre,Åse Bø'],
  ['German', 'windows-1252', 'Jürgen Weiß,Änne Größl,Uwe Köhler'],
  ['French', 'windows-1252', 'Hélène Çedille,Françoise Bâti,Noël Lefèvre'],
  ['of the west together', 'windows-1252', 'Bjørn Ås,Hélène Lefèvre,Jürgen Größl,Núria Peña'],
  ['Polish in UTF-8', 'utf-8', 'Łucja Wąsik,Grażyna Śliwa'],
  ['plain', 'utf-8', 'Anna Berg,Tom Hill'],
]

/** Names are invented; which letters a language has is common knowledge, code pages as the library has them. */
test.each(LISTS)('a list of names that are %s reads back as it was written', (_, encoding, names) => {
  const text = ['name;type', ...names.split(',').map((name) => `${name};Sorrel`), ''].join('\r\n')
  const bytes = iconv.encode(text, encoding)
  expect(iconv.decode(bytes, encodingOf(bytes))).toBe(text)
})
