import { Document, Page, StyleSheet, View } from "@react-pdf/renderer";
import { renderPaper, Text } from "../report/paper";
import { Square } from "../report/square";

/** One label: the code as a square for scanners and in letters for people, with what it is. */
export type Label = { code: string; title: string; detail: string };

const styles = StyleSheet.create({
  page: {
    padding: 28,
    flexDirection: "row",
    flexWrap: "wrap",
    gap: 10,
    alignContent: "flex-start",
  },
  label: {
    width: 255,
    height: 92,
    borderWidth: 0.75,
    borderColor: "#59606B",
    flexDirection: "row",
    alignItems: "center",
    padding: 8,
    gap: 10,
  },
  code: { fontSize: 20, fontWeight: 600 },
  title: { fontSize: 9, marginTop: 4 },
  detail: { fontSize: 8, color: "#59606B", marginTop: 2 },
});

/** A sheet of labels as PDF, A4, two across. */
export const renderLabels = (labels: Label[]): Promise<Buffer> =>
  renderPaper(
    JSON.stringify(labels),
    <Document title="Kit labels" author="Iridel">
      <Page size="A4" style={styles.page}>
        {labels.map((l) => (
          <View key={l.code} style={styles.label} wrap={false}>
            <Square text={l.code} size={72} />
            <View style={{ flex: 1 }}>
              <Text style={styles.code}>{l.code}</Text>
              <Text style={styles.title}>{l.title}</Text>
              <Text style={styles.detail}>{l.detail}</Text>
            </View>
          </View>
        ))}
      </Page>
    </Document>,
  );
